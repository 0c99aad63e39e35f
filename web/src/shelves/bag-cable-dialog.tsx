import { useState } from 'react';
import { Button, Checkbox, Input, Select } from 'antd';
import { bagCableSchema, type BagCable } from '@fairwatt/contract';
import {
  cableFamilies,
  codedWatts,
  faceOfPlug,
  inletFace,
  parseFigure,
  plugName,
  signalText,
  standardPlugKinds,
  mayHaveTwoEnds,
} from '@fairwatt/core';
import { problemOf, useCableBagsQuery, useChangeBagCableMutation } from '../app/api.ts';
import { useAppSelector } from '../app/store.ts';
import { TwoStates } from '../controls/two-states.tsx';
import { Dialog } from '../controls/dialog.tsx';

interface PlugDraft {
  readonly kind: string;
  readonly millimetres: string;
  readonly ends: string;
}
const endText = (end: BagCable['plugs'][number]['ends'][number]) =>
  end === null ? '?' : end === 'none' ? '-' : typeof end === 'number' ? String(end) : end.join('+');
/** What was typed for one pin; what it does not understand is given back as it stands, for its field to refuse. */
function readEnd(typed: string): unknown {
  if (typed === '?') return null;
  if (typed === '-') return 'none';
  if (/^\d+(\+\d+)?$/.test(typed)) return typed.includes('+') ? typed.split('+').map(Number) : Number(typed);
  return typed;
}

/** A spare cable: label, place, plugs, and for each device pin where its wire leads at the supply end. */
export function BagCableDialog({ was, onClose }: { readonly was: BagCable | null; readonly onClose: () => void }) {
  const technician = useAppSelector((state) => state.session.technician);
  const [change, state] = useChangeBagCableMutation();
  const bags = useCableBagsQuery();
  const [conflict, setConflict] = useState<BagCable | null>(null);
  const [id] = useState(() => was?.id ?? crypto.randomUUID());
  const [fields, setFields] = useState({
    label: was?.label ?? '',
    place: was?.place ?? '',
    family: was?.family ?? 'drive',
    cameWith: was?.cameWith ?? '',
    note: was?.note ?? '',
    gauge: was?.gauge === undefined || was.gauge === null ? '' : String(was.gauge),
    twoEnded: was?.twoEnded ?? false,
    codedWatts: was?.codedWatts === undefined || was.codedWatts === null ? '' : String(was.codedWatts),
  });
  const [plugs, setPlugs] = useState<readonly PlugDraft[]>(
    was === null
      ? [{ kind: 'sata', millimetres: '500', ends: '' }]
      : was.plugs.map((plug) => ({
          kind: plug.kind,
          millimetres: plug.millimetres === null ? '' : String(plug.millimetres),
          ends: plug.ends.map(endText).join(' '),
        })),
  );
  const canHaveTwoEnds = mayHaveTwoEnds(fields.family);
  const [told, setTold] = useState<readonly string[]>([]);
  async function save(): Promise<void> {
    const read = bagCableSchema.safeParse({
      id,
      version: was?.version ?? 0,
      ...fields,
      label: fields.label.trim(),
      gauge: fields.gauge === '' ? null : Number(fields.gauge),
      twoEnded: fields.twoEnded && canHaveTwoEnds,
      codedWatts: fields.family !== 'card-16' || fields.codedWatts === '' ? null : Number(fields.codedWatts),
      plugs: plugs.map((plug) => ({
        kind: plug.kind,
        millimetres: plug.millimetres.trim() === '' ? null : (parseFigure(plug.millimetres) ?? plug.millimetres),
        ends: plug.ends
          .split(/[\s,]+/)
          .filter((end) => end !== '')
          .map(readEnd),
      })),
    });
    if (!read.success) {
      setTold(read.error.issues.map((issue) => `${issue.path.join('.')}: ${issue.message}`));
      return;
    }
    await send(read.data, was?.version ?? 0);
  }
  async function send(cable: BagCable, basedOn: number): Promise<void> {
    const answer = await change({ by: technician ?? '', basedOn, cable });
    if (answer.error === undefined) {
      onClose();
      return;
    }
    const problem = problemOf(answer.error);
    if (problem.type === '/problems/stale') setConflict(cable);
    else setTold([problem.title]);
  }
  const standing = conflict === null ? null : (bags.data?.cables.find((cable) => cable.id === conflict.id) ?? null);
  const field = (name: 'label' | 'place' | 'cameWith' | 'note', label: string, max: number) => (
    <label className="field">
      <span className="name">{label}</span>
      <Input
        value={fields[name]}
        maxLength={max}
        onChange={(event) => setFields({ ...fields, [name]: event.target.value })}
      />
    </label>
  );
  return (
    <Dialog title={was === null ? 'Enter a spare cable' : was.label} onClose={onClose} width={680}>
      <form
        className="fields"
        onSubmit={(event) => {
          event.preventDefault();
          void save();
        }}
      >
        {conflict !== null && (
          <TwoStates
            what={`Cable ${conflict.label}`}
            mine={conflict}
            theirs={standing}
            onMine={() => void send(conflict, standing?.version ?? 0)}
            onTheirs={onClose}
          />
        )}
        {field('label', 'Label on its bag', 20)}
        {field('place', 'Place', 40)}
        <label className="field">
          <span className="name">Made for the socket of</span>
          <Select
            showSearch={{ optionFilterProp: 'label' }}
            aria-label="Made for the socket of"
            value={fields.family}
            onChange={(picked) => setFields({ ...fields, family: picked })}
            options={[...cableFamilies.map((family) => ({ value: family, label: family }))]}
          />
        </label>
        {canHaveTwoEnds && (
          <Checkbox
            checked={fields.twoEnded}
            onChange={(event) => setFields({ ...fields, twoEnded: event.target.checked })}
          >
            Two plugs at the supply; the second one&apos;s pins are counted on from the first
          </Checkbox>
        )}
        {field('cameWith', 'Came with', 60)}
        <label className="field">
          <span className="name">Wire, as printed on it</span>
          <Select
            aria-label="Wire, as printed on it"
            value={fields.gauge}
            onChange={(picked) => setFields({ ...fields, gauge: picked })}
            options={[
              { value: '', label: 'not known: the thinnest is reckoned' },
              ...[16, 18, 20, 22].map((gauge) => ({ value: gauge, label: `${gauge} AWG` })),
            ]}
          />
        </label>
        {fields.family === 'card-16' && (
          <label className="field">
            <span className="name">Coded for, as printed on it</span>
            <Select
              aria-label="Coded for, as printed on it"
              value={fields.codedWatts}
              onChange={(picked) => setFields({ ...fields, codedWatts: picked })}
              options={[
                { value: '', label: 'not known: look before it is used' },
                ...codedWatts.map((watts) => ({ value: String(watts), label: `${watts} W` })),
              ]}
            />
          </label>
        )}
        {plugs.map((plug, index) => {
          const { rows, small = [] } = inletFace[faceOfPlug[plug.kind as keyof typeof faceOfPlug]];
          const face = [
            ...rows
              .flat()
              .sort((a, b) => a.pin - b.pin)
              .map(({ pin, signal }) => `${pin} ${signalText[signal]}`),
            ...small.map(({ name }) => `${name} small contact`),
          ];
          const set = (changes: Partial<PlugDraft>) =>
            setPlugs(plugs.map((item, at) => (at === index ? { ...item, ...changes } : item)));
          return (
            <fieldset key={index} className="wide ranges">
              <div className="range-row" style={{ gridTemplateColumns: '160px 110px 1fr auto' }}>
                <label className="field">
                  <span className="name">Plug {index + 1}</span>
                  <Select
                    aria-label={`Plug ${index + 1}`}
                    value={plug.kind}
                    onChange={(picked) => set({ kind: picked })}
                    options={[...standardPlugKinds.map((kind) => ({ value: kind, label: plugName[kind] }))]}
                  />
                </label>
                <label className="field">
                  <span className="name">At (mm)</span>
                  <Input
                    className="fig"
                    value={plug.millimetres}
                    placeholder="not measured"
                    onChange={(event) => set({ millimetres: event.target.value })}
                  />
                </label>
                <label className="field">
                  <span className="name">Wire of each pin, by pin of the supply end</span>
                  <Input
                    className="fig"
                    value={plug.ends}
                    placeholder="1 3 5 - ?"
                    onChange={(event) => set({ ends: event.target.value })}
                  />
                </label>
                <Button
                  type="link"
                  disabled={plugs.length === 1}
                  onClick={() => setPlugs(plugs.filter((_, at) => at !== index))}
                >
                  drop
                </Button>
              </div>
              <p className="quiet">
                In the order of its pins: {face.join(', ')}. “-” for no wire, “13+14” for two wires in one contact, “?”
                where nobody looked.
              </p>
            </fieldset>
          );
        })}
        <div className="wide">
          <Button
            type="link"
            onClick={() => setPlugs([...plugs, plugs.at(-1) ?? { kind: 'sata', millimetres: '600', ends: '' }])}
          >
            another plug
          </Button>
        </div>
        {told.length > 0 && (
          <div className="error-text wide" role="alert">
            {told.map((line) => (
              <div key={line}>{line}</div>
            ))}
          </div>
        )}
        {was !== null && (
          <p className="quiet wide">When plugs or wires change, what was proved of this cable no longer counts.</p>
        )}
        <Button type="primary" className="primary wide" htmlType="submit" disabled={state.isLoading}>
          <span>{state.isLoading ? 'Saving …' : 'Save'}</span>
          <kbd aria-hidden="true">↵</kbd>
        </Button>
      </form>
    </Dialog>
  );
}
