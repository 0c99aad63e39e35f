import { useState, type ReactNode } from 'react';
import { DateInput } from '../controls/date-input.tsx';
import { Button, Checkbox, Input, Select } from 'antd';
import { supplyModelSchema } from '@fairwatt/contract';
import {
  corrections,
  correctionText,
  fanSides,
  fanSideText,
  grades,
  labelProblems,
  mainsInlets,
  problemOfLabel,
  protectionNames,
  protectionText,
  shapes,
  type SupplyModel,
} from '@fairwatt/core';
import {
  problemOf,
  useChangeSupplyMutation,
  useRemoveSupplyMutation,
  useShopQuery,
  useSuppliesQuery,
} from '../app/api.ts';
import { useAppSelector } from '../app/store.ts';
import { RemoveButton } from '../controls/remove-button.tsx';
import { TwoStates } from '../controls/two-states.tsx';
import { Dialog } from '../controls/dialog.tsx';
import { modelFrom, pathNames, wholeOf, type Simple, type Whole } from './supply-draft.ts';
import { KitFields, OutputsFields, SocketsFields, type Editing } from './supply-lists.tsx';

/** A supply's whole data: label, outputs, sockets and the cable kit piece by piece. */
export default function SupplyEditor({
  was,
  start,
  onClose,
}: {
  readonly was: SupplyModel | null;
  readonly start: SupplyModel | null;
  readonly onClose: () => void;
}) {
  const technician = useAppSelector((state) => state.session.technician);
  const shop = useShopQuery();
  const [change, changing] = useChangeSupplyMutation();
  const supplies = useSuppliesQuery();
  const [conflict, setConflict] = useState<SupplyModel | null>(null);
  const [remove, removing] = useRemoveSupplyMutation();
  const [whole, setWhole] = useState<Whole>(() => {
    const first = wholeOf(start, was === null);
    return first.fields.currency === ''
      ? { ...first, fields: { ...first.fields, currency: shop.data?.settings.currency ?? 'EUR' } }
      : first;
  });
  const [errors, setErrors] = useState<Readonly<Record<string, string>>>({});
  const [told, setTold] = useState<string | null>(null);
  const setField = (name: Simple, value: string) => setWhole({ ...whole, fields: { ...whole.fields, [name]: value } });
  const set: Editing['set'] = (list, index, changes) =>
    setWhole({ ...whole, [list]: whole[list].map((item, at) => (at === index ? { ...item, ...changes } : item)) });
  const drop: Editing['drop'] = (list, index) =>
    setWhole({ ...whole, [list]: (whole[list] as unknown[]).filter((_, at) => at !== index) });
  const twelve = whole.rails.filter((rail) => rail.rail === '+12');
  async function save(): Promise<void> {
    const read = supplyModelSchema.safeParse(modelFrom(whole, was?.onShelf ?? 0));
    if (!read.success) {
      setErrors(
        Object.fromEntries(
          read.error.issues.map((issue) => {
            const path = issue.path.join('.');
            return [pathNames[path] ?? path, issue.message];
          }),
        ),
      );
      setTold(`${read.error.issues.length} ${read.error.issues.length === 1 ? 'thing is' : 'things are'} to mend.`);
      return;
    }
    setErrors({});
    await send(read.data, was);
  }
  async function send(model: SupplyModel, seen: SupplyModel | null): Promise<void> {
    const answer = await change({ by: technician ?? '', was: seen, model });
    if (answer.error === undefined) {
      onClose();
      return;
    }
    const problem = problemOf(answer.error);
    if (problem.type === '/problems/stale') setConflict(model);
    setTold(
      technician === null
        ? 'Pick your name at the top right first.'
        : [problem.title, ...(problem.errors ?? []).map((error) => `${error.path}: ${error.message}`)].join('. '),
    );
  }
  const standing = conflict === null ? null : (supplies.data?.find((model) => model.id === conflict.id) ?? null);
  const errorAt = (path: string): ReactNode => {
    const found = Object.entries(errors).filter(([key]) => key === path || key.startsWith(`${path}.`));
    return found.length === 0 ? null : (
      <span className="error" role="alert">
        {found.map(([, message]) => message).join('; ')}
      </span>
    );
  };
  const text = (name: Simple, label: string, unit?: string) => (
    <label className="field">
      <span className="name">
        {label}
        {unit === undefined ? '' : ` (${unit})`}
      </span>
      <Input
        className={unit === undefined ? undefined : 'fig'}
        value={whole.fields[name]}
        maxLength={60}
        inputMode={unit === undefined ? undefined : 'decimal'}
        onChange={(event) => setField(name, event.target.value)}
      />
      {errorAt(name)}
    </label>
  );
  const pick = (name: Simple, label: string, options: readonly (readonly [string, string])[]) => (
    <label className="field">
      <span className="name">{label}</span>
      <Select
        aria-label={label}
        value={whole.fields[name]}
        onChange={(picked) => setField(name, picked)}
        options={[...options.map(([value, shown]) => ({ value: value, label: shown }))]}
      />
    </label>
  );
  const same = (list: readonly string[]) => list.map((value) => [value, value] as const);
  const checked = supplyModelSchema.safeParse(modelFrom(whole, 0));
  const doubts = checked.success ? labelProblems(checked.data.label) : [];
  const ownError = (path: string): ReactNode =>
    errors[path] === undefined ? null : (
      <span className="error-text" role="alert">
        {errors[path]}
      </span>
    );
  const editing: Editing = { whole, setWhole, set, drop, errorAt, ownError, twelve };
  return (
    <Dialog title={was === null ? 'Enter a supply' : was.name} onClose={onClose} width={980} high>
      {conflict !== null && (
        <TwoStates
          what={conflict.name}
          mine={conflict}
          theirs={standing}
          onMine={() => void send(conflict, standing)}
          onTheirs={onClose}
        />
      )}
      <form
        className="supply-editor"
        onSubmit={(event) => {
          event.preventDefault();
          void save();
        }}
      >
        <div className="fields by-four">
          {text('name', 'Name')}
          {text('ratingWatts', 'Rating', 'W')}
          {pick('shape', 'Shape', same(shapes))}
          {pick('guide', 'Guide', same(['2.x', '3.x']))}
          {pick('grade', 'Efficiency grade', same(grades))}
          {pick('modular', 'Cables', [
            ['fixed', 'fixed'],
            ['semi', 'partly modular'],
            ['full', 'modular'],
          ])}
          {text('depthMillimetres', 'Depth', 'mm')}
          {pick(
            'fan',
            'Air',
            fanSides.map((side) => [side, fanSideText[side]]),
          )}
          {text('mainsLowVolts', 'Mains from', 'V')}
          {text('mainsHighVolts', 'Mains to', 'V')}
          {pick('inlet', 'Inlet', same(mainsInlets))}
          {pick(
            'correction',
            'Correction',
            corrections.map((value) => [value, correctionText[value]]),
          )}
          {text('price', `Price in ${whole.fields.currency}`)}
          {text('currency', 'Currency')}
          <label className="field">
            <span className="name">Price of</span>
            <DateInput label="Price of" value={whole.fields.asOf} onChange={(day) => setField('asOf', day)} />
            {errorAt('asOf')}
          </label>
          {text('warrantyYears', 'Warranty', 'years')}
          {text('noiseDecibels', 'Noise, empty if not known', 'dB')}
          {text('designYear', 'Design of', 'year')}
          <Checkbox
            className="tick"
            checked={whole.has16Pin}
            onChange={(event) => setWhole({ ...whole, has16Pin: event.target.checked })}
          >
            16-pin card connector
          </Checkbox>
          <Checkbox
            className="tick"
            checked={whole.ownHoles}
            onChange={(event) => setWhole({ ...whole, ownHoles: event.target.checked })}
          >
            its maker's own holes
          </Checkbox>
        </div>
        {errorAt('id')}
        {errorAt('mainsHighVolts')}
        <fieldset>
          <legend className="label">Watches over</legend>
          <div className="row-actions">
            {protectionNames.map((name) => (
              <Checkbox
                key={name}
                className="tick"
                checked={whole.protections.includes(name)}
                onChange={(event) =>
                  setWhole({
                    ...whole,
                    protections: event.target.checked
                      ? [...whole.protections, name]
                      : whole.protections.filter((other) => other !== name),
                  })
                }
              >
                {protectionText[name]}
              </Checkbox>
            ))}
          </div>
        </fieldset>
        <div className="columns">
          <OutputsFields {...editing} />
          <SocketsFields {...editing} />
        </div>
        <KitFields {...editing} />
        {doubts.map((problem) => (
          <p key={problem.code} className="caution" role="status">
            <span>{problemOfLabel(problem)}</span>
          </p>
        ))}
        {told !== null && (
          <p className="error-text" role="alert">
            {told}
          </p>
        )}
        <div className="row-actions editor-save">
          <Button
            type="primary"
            className="primary"
            htmlType="submit"
            style={{ width: 260 }}
            disabled={changing.isLoading}
          >
            <span>{changing.isLoading ? 'Saving …' : 'Save'}</span>
            <kbd aria-hidden="true">↵</kbd>
          </Button>
          {was !== null && (
            <RemoveButton
              what={was.name}
              text="Take it out of the shop"
              disabled={technician === null || removing.isLoading}
              onRemove={() =>
                void remove({ id: was.id, by: technician ?? '' }).then((answer) => {
                  if (answer.error === undefined) onClose();
                  else setTold(problemOf(answer.error).title);
                })
              }
            />
          )}
        </div>
      </form>
    </Dialog>
  );
}
