import { useState } from 'react';
import { DateInput } from '../controls/date-input.tsx';
import { Button, Input, Select } from 'antd';
import { instrumentSchema } from '@fairwatt/contract';
import { instrumentKinds, instrumentKindText, parseFigure, type Instrument } from '@fairwatt/core';
import { problemOf, useChangeInstrumentMutation, useShopQuery } from '../app/api.ts';
import { useAppSelector } from '../app/store.ts';
import { TwoStates } from '../controls/two-states.tsx';
import { Dialog } from '../controls/dialog.tsx';

interface RangeDraft {
  readonly fullScaleVolts: string;
  readonly percent: string;
  readonly counts: string;
  readonly digitVolts: string;
}
interface Draft {
  readonly name: string;
  readonly kind: Instrument['kind'];
  readonly ownedBy: string;
  readonly calibratedUntil: string;
  readonly powerGood: string;
  readonly ripple: string;
  readonly ranges: readonly RangeDraft[];
}

const emptyRange: RangeDraft = { fullScaleVolts: '', percent: '', counts: '', digitVolts: '' };
const draftOf = (was: Instrument | null): Draft =>
  was === null
    ? {
        name: '',
        kind: 'multimeter',
        ownedBy: '',
        calibratedUntil: '',
        powerGood: '',
        ripple: '',
        ranges: [emptyRange],
      }
    : {
        name: was.name,
        kind: was.kind,
        ownedBy: was.ownedBy,
        calibratedUntil: was.calibratedUntil ?? '',
        powerGood: was.powerGoodErrorMilliseconds === null ? '' : String(was.powerGoodErrorMilliseconds),
        ripple: was.rippleErrorMillivolts === null ? '' : String(was.rippleErrorMillivolts),
        ranges: was.ranges.map((range) => ({
          fullScaleVolts: String(range.fullScaleVolts),
          percent: String(range.percent),
          counts: String(range.counts),
          digitVolts: String(range.digitVolts),
        })),
      };
const rangeFields = [
  ['fullScaleVolts', 'To (V)'],
  ['percent', '% of reading'],
  ['counts', '+ counts'],
  ['digitVolts', '× digit (V)'],
] as const;

/** What an instrument may give beside voltages, each with its limit of error. */
const ownErrors = [
  ['powerGood', 'Times, ± ms (empty: cannot)', 'powerGoodErrorMilliseconds'],
  ['ripple', 'Ripple, ± mV (empty: cannot)', 'rippleErrorMillivolts'],
] as const;

/** A figure, or the text itself, so that what is no figure is refused at its field. */
const typed = (text: string): unknown => parseFigure(text) ?? text;

/** A meter or tester with the error that its maker gives, as it stands in its manual. */
export function InstrumentDialog({ was, onClose }: { readonly was: Instrument | null; readonly onClose: () => void }) {
  const technician = useAppSelector((state) => state.session.technician);
  const [change, { isLoading }] = useChangeInstrumentMutation();
  const shop = useShopQuery();
  const [conflict, setConflict] = useState<Instrument | null>(null);
  const [id] = useState(() => was?.id ?? `i-${crypto.randomUUID().slice(0, 8)}`);
  const [draft, setDraft] = useState(() => draftOf(was));
  const [errors, setErrors] = useState<Readonly<Record<string, string>>>({});
  const [told, setTold] = useState<string | null>(null);
  const set = (changes: Partial<Draft>) => setDraft({ ...draft, ...changes });
  async function save(): Promise<void> {
    const read = instrumentSchema.safeParse({
      id,
      name: draft.name.trim(),
      kind: draft.kind,
      ownedBy: draft.ownedBy.trim(),
      calibratedUntil: draft.calibratedUntil === '' ? null : draft.calibratedUntil,
      powerGoodErrorMilliseconds: draft.powerGood.trim() === '' ? null : typed(draft.powerGood),
      rippleErrorMillivolts: draft.ripple.trim() === '' ? null : typed(draft.ripple),
      ranges: draft.ranges.map((range) =>
        Object.fromEntries(rangeFields.map(([field]) => [field, typed(range[field])])),
      ),
    });
    if (!read.success) {
      setErrors(Object.fromEntries(read.error.issues.map((issue) => [issue.path.join('.'), issue.message])));
      return;
    }
    setErrors({});
    await send(read.data, was);
  }
  async function send(instrument: Instrument, seen: Instrument | null): Promise<void> {
    const answer = await change({ by: technician ?? '', was: seen, instrument });
    if (answer.error === undefined) {
      onClose();
      return;
    }
    const problem = problemOf(answer.error);
    if (problem.type === '/problems/stale') setConflict(instrument);
    setTold([problem.title, ...(problem.errors ?? []).map((error) => `${error.path}: ${error.message}`)].join('. '));
  }
  const standing = conflict === null ? null : (shop.data?.instruments.find((item) => item.id === conflict.id) ?? null);
  const errorAt = (path: string) =>
    errors[path] === undefined ? null : (
      <span className="error" role="alert">
        {errors[path]}
      </span>
    );
  return (
    <Dialog title={was === null ? 'Add a meter or tester' : was.name} onClose={onClose} width={640}>
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
        className="fields"
        onSubmit={(event) => {
          event.preventDefault();
          void save();
        }}
      >
        <label className="field">
          <span className="name">Name</span>
          <Input value={draft.name} maxLength={60} onChange={(event) => set({ name: event.target.value })} />
          {errorAt('name')}
        </label>
        <label className="field">
          <span className="name">It is a</span>
          <Select
            aria-label="It is a"
            value={draft.kind}
            onChange={(picked) => set({ kind: picked })}
            options={instrumentKinds.map((kind) => ({ value: kind, label: instrumentKindText[kind] }))}
          />
        </label>
        <label className="field">
          <span className="name">Calibrated until</span>
          <DateInput
            label="Calibrated until"
            value={draft.calibratedUntil}
            onChange={(calibratedUntil) => set({ calibratedUntil })}
          />
          {errorAt('calibratedUntil')}
        </label>
        <label className="field">
          <span className="name">Whose it is (empty: the shop's)</span>
          <Input value={draft.ownedBy} maxLength={60} onChange={(event) => set({ ownedBy: event.target.value })} />
          {errorAt('ownedBy')}
        </label>
        {ownErrors.map(([field, label, path]) => (
          <label key={field} className="field">
            <span className="name">{label}</span>
            <Input
              className="fig"
              inputMode="decimal"
              value={draft[field]}
              onChange={(event) => set({ [field]: event.target.value })}
            />
            {errorAt(path)}
          </label>
        ))}
        <fieldset className="wide ranges">
          <legend className="label">Limit of error, by range</legend>
          {draft.ranges.map((range, index) => (
            <div key={index} className="range-row">
              {rangeFields.map(([field, label]) => (
                <label key={field} className="field">
                  <span className="name">{label}</span>
                  <Input
                    className="fig"
                    inputMode="decimal"
                    value={range[field]}
                    onChange={(event) =>
                      set({
                        ranges: draft.ranges.map((item, at) =>
                          at === index ? { ...item, [field]: event.target.value } : item,
                        ),
                      })
                    }
                  />
                  {errorAt(`ranges.${index}.${field}`)}
                </label>
              ))}
              <Button
                type="link"
                disabled={draft.ranges.length === 1}
                aria-label={`Remove range ${index + 1}`}
                onClick={() => set({ ranges: draft.ranges.filter((_, at) => at !== index) })}
              >
                remove
              </Button>
            </div>
          ))}
          <Button
            type="link"
            disabled={draft.ranges.length >= 8}
            onClick={() => set({ ranges: [...draft.ranges, emptyRange] })}
          >
            another range
          </Button>
        </fieldset>
        {told !== null && (
          <div className="error-text wide" role="alert">
            {told}
          </div>
        )}
        <Button type="primary" className="primary wide" htmlType="submit" disabled={isLoading}>
          <span>{isLoading ? 'Saving …' : 'Save'}</span>
          <kbd aria-hidden="true">↵</kbd>
        </Button>
      </form>
    </Dialog>
  );
}
