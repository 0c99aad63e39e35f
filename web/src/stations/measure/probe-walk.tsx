import { useRef, useState } from 'react';
import { Button, Input, type InputRef } from 'antd';
import {
  bareReading,
  standardInletKinds,
  inletName,
  judgeProbe,
  parseFigure,
  nextTouch,
  pinExpectText,
  probedCode,
  probedCodeText,
  probeWordText,
  type CableProbe,
  type Guide,
  type InletKind,
  type Phase,
  type GroundProof,
  type PinFinding,
  type ProbedPin,
  type Touch,
} from '@fairwatt/core';
import { useNetworkInstrumentsQuery } from '../../app/api.ts';
import { useAppSelector } from '../../app/store.ts';
import { SelectField, TextField } from '../../controls/fields.tsx';
import { ConnectorFace, type FaceSide } from '../../drawings/connector-face.tsx';
import { useDesk } from '../../job/job-context.ts';
import { Choice } from '../../controls/choice.tsx';
import { HandsFreeWalk } from './hands-free-walk.tsx';
import { WalkAsProof } from './walk-as-proof.tsx';

const marks: Record<Exclude<PinFinding, 'missing'>, string> = {
  right: '✓',
  weak: '▲',
  wrong: '✕',
  unproved: '?',
  open: '▲',
};
const wordClass = { safe: 'pass', wrong: 'fail', incomplete: 'cannot-tell' } as const;
const longestWall = 60;

/** One plug, pin by pin: the pin to touch is lit, what it must show is said, and the entry goes on by itself. */
export function ProbeWalk({ phase, barred }: { readonly phase: Phase; readonly barred: boolean }) {
  const { job, view, act, locked, offerUndo } = useDesk();
  const guide = view[phase].guide;
  const [openId, setOpen] = useState<string | null>(null);
  const [label, setLabel] = useState('');
  const [plug, setPlug] = useState<InletKind>('card-8');
  const probe = job.probes.find((item) => item.id === openId) ?? null;
  const begin = () => {
    const id = crypto.randomUUID();
    const name = label.trim() === '' ? `Cable ${job.probes.length + 1}` : label.trim();
    if (act({ kind: 'put-probe', probe: { id, label: name, plug, pins: [], note: '' }, basedOn: 0 }) === null) {
      setOpen(id);
      setLabel('');
    }
  };
  if (probe !== null)
    return <Walk key={probe.id} probe={probe} phase={phase} barred={barred} onClose={() => setOpen(null)} />;
  return (
    <>
      <section className="block" aria-label="New walk">
        <p>
          Touch every pin of a plug in turn. It proves a loose or borrowed cable at its device end before it is trusted,
          and finds a wrong wire before it burns something.
        </p>
        <div className="walk-new">
          <TextField
            label="Cable"
            value={label}
            placeholder="Borrowed card cable, grey sleeve"
            maxLength={40}
            disabled={locked}
            onChange={setLabel}
          />
          <SelectField
            label="Plug"
            value={plug}
            options={standardInletKinds.map((kind) => ({ value: kind, label: inletName[kind] }))}
            disabled={locked}
            onChange={setPlug}
          />
          <Button disabled={locked || barred} data-primary onClick={begin}>
            Start the walk
          </Button>
        </div>
        <p className="caution" style={{ marginTop: 12 }}>
          The device stays unplugged. Supply on by its start line alone; black probe on a ground of the main plug, one
          hand, no slip to the next pin.
        </p>
      </section>
      {job.probes.length > 0 && (
        <section aria-label="Walks">
          <span className="label">Walked</span>
          <ul className="trail">
            {job.probes.map((item) => {
              const verdict = judgeProbe(item.plug, item.pins, guide);
              return (
                <li key={item.id} data-probe={item.id}>
                  <span className={`verdict ${wordClass[verdict.word]}`}>{probeWordText[verdict.word]}</span>
                  <span className="what">
                    <strong>{item.label}</strong>, {inletName[item.plug]}
                    <span className="quiet block-note">{wrongPins(item, guide)}</span>
                  </span>
                  <Button type="link" onClick={() => setOpen(item.id)}>
                    open
                  </Button>
                  <Button
                    type="link"
                    disabled={locked}
                    onClick={() => {
                      if (act({ kind: 'drop-probe', probeId: item.id, basedOn: item.version }) === null)
                        offerUndo(`${item.label} is removed.`);
                    }}
                  >
                    remove
                  </Button>
                </li>
              );
            })}
          </ul>
        </section>
      )}
    </>
  );
}

function wrongPins(probe: CableProbe, guide: Guide): string {
  const { pins } = judgeProbe(probe.plug, probe.pins, guide);
  const wrong = pins.filter((pin) => pin.finding === 'wrong');
  if (wrong.length > 0)
    return wrong
      .map(
        (pin) =>
          `pin ${pin.name} carries ` +
          (pin.carries === null ? 'something else' : pin.carries === 'ground' ? 'ground' : `${pin.carries} V`),
      )
      .join(', ');
  const missing = pins.filter((pin) => pin.finding === 'missing').length;
  const weak = pins.filter((pin) => pin.finding === 'weak');
  const open = pins.filter((pin) => pin.finding === 'open');
  const unproved = pins.filter((pin) => pin.finding === 'unproved');
  if (open.length > 0) return `no ground on pin ${open.map((pin) => pin.name).join(', ')}: nothing is connected there`;
  if (missing === 0 && unproved.length > 0)
    return `${unproved.length} of the grounds still to prove: an open one shows 0 V as well`;
  return missing > 0
    ? `${missing} of ${pins.length} pins still to touch`
    : weak.length > 0
      ? `weak on pin ${weak.map((pin) => pin.name).join(', ')}: look at the supply first`
      : 'every pin right';
}

function Walk({
  probe,
  phase,
  barred,
  onClose,
}: {
  readonly probe: CableProbe;
  readonly phase: Phase;
  /** Nothing is powered now, so no further pin is touched; a mistyped one can still be put right. */
  readonly barred: boolean;
  readonly onClose: () => void;
}) {
  const { job, view, act, locked, shop } = useDesk();
  const [instrumentId, setInstrument] = useState(
    () => shop.instruments.find((item) => item.kind === 'multimeter')?.id ?? '',
  );
  const [keptReadings, setKeptReadings] = useState(false);
  const [side, setSide] = useState<FaceSide>('contacts');
  const [text, setText] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const [chosen, setChosen] = useState<number | null>(null);
  /** The pin that was clicked is measured anew, volts first. */
  const [anew, setAnew] = useState(false);
  /** Both hands at the probes: the meter's held figures are taken by themselves; null while they are typed. */
  const [free, setFree] = useState<{ readonly lastPin: number | null } | null>(null);
  const network = useNetworkInstrumentsQuery();
  const sweeping = useAppSelector(({ sweep }) => (sweep !== null && sweep.end === null ? sweep.meterId : null));
  const meter = network.data?.find((item) => item.role === 'meter' && item.id !== sweeping);
  const field = useRef<InputRef>(null);
  const guide = view[phase].guide;
  const verdict = judgeProbe(probe.plug, probe.pins, guide);
  const at =
    verdict.pins.find((pin) => pin.pin === chosen && (!barred || pin.value !== null)) ??
    (barred
      ? undefined
      : (verdict.pins.find((pin) => pin.finding === 'missing') ??
        verdict.pins.find((pin) => pin.finding === 'unproved'))) ??
    null;
  // First every pin for harm, then the grounds: the probes change places once.
  const proving = at !== null && (at.finding === 'unproved' || at.finding === 'open') && !anew;
  /** What the pin showed, while its ground is proved. */
  const shown = proving ? at.value : null;
  const putPins = (pins: readonly ProbedPin[]) =>
    act({
      kind: 'put-probe',
      probe: {
        id: probe.id,
        label: probe.label,
        plug: probe.plug,
        pins: [...pins].sort((a, b) => a.pin - b.pin),
        note: probe.note,
      },
      basedOn: probe.version,
    });
  const without = (pin: number) => probe.pins.filter((item) => item.pin !== pin);
  function put(value: ProbedPin['value'], ground?: GroundProof): void {
    if (at === null) return;
    const taken = { pin: at.pin, value, ...(ground === undefined ? {} : { ground }) };
    if (putPins([...without(at.pin), taken]) !== null) return;
    setText('');
    setProblem(null);
    setChosen(null);
    setAnew(false);
    field.current?.focus();
  }
  const code = probedCode(verdict);
  const rails = verdict.pins.filter(
    (pin) => pin.expects.kind === 'rail' && pin.value !== null && (pin.finding === 'right' || pin.finding === 'weak'),
  );
  function keepReadings(): void {
    for (const pin of rails) {
      if (pin.expects.kind !== 'rail' || pin.value === null) continue;
      if (
        act({
          kind: 'take-reading',
          reading: {
            ...bareReading,
            id: crypto.randomUUID(),
            phase,
            subject: pin.expects.rail,
            condition: 'off-load',
            value: pin.value,
            instrumentId,
            pin: { plug: probe.plug, pin: pin.pin },
            note: probe.label,
          },
        }) !== null
      )
        return;
    }
    setKeptReadings(true);
  }
  function keep(): void {
    const figure = parseFigure(text);
    if (figure === null) setProblem(`“${text}” is not a figure; write it like 11.9, or press Absent`);
    else if (Math.abs(figure) > longestWall) setProblem("A supply's output is never above 60 V: check meter and pin.");
    else if (shown !== null) put(shown, { kind: 'rail', volts: figure });
    else put({ kind: 'figure', figure });
  }
  return (
    <section className="block walk" aria-label={`Walk along ${probe.label}`} data-walk={verdict.word}>
      <div className="walk-head">
        <h2>
          {probe.label}, {inletName[probe.plug]}
        </h2>
        <span className={`verdict ${wordClass[verdict.word]}`} style={{ fontSize: 20 }}>
          {probeWordText[verdict.word]}
        </span>
        <Choice
          label="Seen from"
          value={side}
          options={(['contacts', 'wires'] as const).map((value) => ({ value: value, label: <>from the {value}</> }))}
          onPick={(value) => setSide(value)}
        />
        <Button type="link" onClick={onClose}>
          all walks
        </Button>
      </div>
      <ConnectorFace
        kind={probe.plug}
        lit={litPins(free === null ? null : nextTouch(verdict), at?.pin)}
        side={side}
        width={760}
        cellMost={58}
        marks={
          new Map(
            verdict.pins.flatMap((pin): [number, string][] =>
              pin.finding === 'missing' ? [] : [[pin.pin, marks[pin.finding]]],
            ),
          )
        }
        onPin={(pin) => {
          setChosen(pin);
          setAnew(true);
        }}
      />
      {code !== null && (
        <p className={code === 'none' ? 'caution' : undefined} data-coded={code} style={{ marginTop: 10 }}>
          {probedCodeText[code]}
        </p>
      )}
      {free !== null && meter !== undefined && !barred ? (
        <HandsFreeWalk
          meter={meter}
          probe={probe}
          verdict={verdict}
          lastPin={free.lastPin}
          job={job.code}
          locked={locked}
          onPut={(pin) => {
            if (putPins([...without(pin.pin), pin]) === null) setFree({ lastPin: pin.pin });
          }}
          onTakeBack={(pin) => {
            if (putPins(without(pin)) === null) setFree({ lastPin: null });
          }}
          onStop={() => setFree(null)}
        />
      ) : at === null ? (
        <p style={{ marginTop: 10 }}>
          {wrongPins(probe, guide)}.{' '}
          {barred ? 'Mistyped? Click the pin and type it anew.' : 'Click a pin to touch it again.'}
        </p>
      ) : (
        <form
          className="walk-entry"
          onSubmit={(event) => {
            event.preventDefault();
            keep();
          }}
        >
          <p className="decides">
            {proving
              ? `Prove the ${at.expects.kind === 'coded' ? 'code' : 'ground'} on pin ${at.name}`
              : `Touch pin ${at.name}`}
            <span className="quiet" style={{ fontSize: 16, fontWeight: 400 }}>
              {' '}
              {proving
                ? at.expects.kind === 'coded'
                  ? 'red on a known rail, black on this pin: that rail at ground, 0 V where it is open'
                  : 'red on a known rail, black on this pin: it must show that rail'
                : `must show ${pinExpectText(at.expects)}`}
            </span>
          </p>
          <div className="row-actions">
            <Input
              ref={field}
              data-entry
              className="fig cell-input"
              style={{ fontSize: 22, width: 150 }}
              autoFocus
              inputMode="decimal"
              autoComplete="off"
              aria-label={`Volts at pin ${at.name}`}
              aria-invalid={problem !== null}
              value={text}
              disabled={locked}
              onChange={(event) => {
                setText(event.target.value);
                setProblem(null);
              }}
            />
            <Button htmlType="submit" disabled={locked || text.trim() === ''}>
              Keep <kbd aria-hidden="true">↵</kbd>
            </Button>
            {shown !== null ? (
              <>
                <Button disabled={locked} onClick={() => put(shown, { kind: 'continuity', heard: true })}>
                  Lead out: continuity to ground
                </Button>
                <Button disabled={locked} onClick={() => put(shown, { kind: 'continuity', heard: false })}>
                  No continuity
                </Button>
              </>
            ) : (
              <Button disabled={locked} onClick={() => put({ kind: 'code', code: 'absent' })}>
                Absent
              </Button>
            )}
            {meter !== undefined && !barred && (
              <Button disabled={locked} onClick={() => setFree({ lastPin: null })}>
                Hands free with {meter.name}
              </Button>
            )}
            {at.value !== null && !proving && (
              <span className="quiet">was {at.value.kind === 'figure' ? `${at.value.figure} V` : at.value.code}</span>
            )}
          </div>
          {problem !== null && (
            <p className="error-text" role="alert">
              {problem}
            </p>
          )}
        </form>
      )}
      {rails.length > 0 && verdict.word !== 'wrong' && (
        <div className="row-actions" style={{ marginTop: 14, alignItems: 'end' }}>
          <SelectField
            label="Read with"
            value={instrumentId}
            options={shop.instruments.map((item) => ({ value: item.id, label: item.name }))}
            disabled={locked}
            onChange={setInstrument}
          />
          <Button disabled={locked || keptReadings || instrumentId === ''} onClick={keepReadings}>
            {keptReadings ? 'Among the readings' : `${rails.length} rail pins as readings, off load`}
          </Button>
        </div>
      )}
      {verdict.word === 'safe' && <WalkAsProof probe={probe} />}
      {verdict.word === 'wrong' && (
        <p className="caution" style={{ marginTop: 12 }}>
          Do not plug this in: {wrongPins(probe, guide)}. Mark the cable and keep it out of the bag.
        </p>
      )}
    </section>
  );
}

/** The pins to touch: also the one that red stays on, with both hands at the probes. */
function litPins(touch: Touch | null, typed: number | undefined): readonly number[] {
  if (touch === null) return typed === undefined ? [] : [typed];
  return touch.way === 'red-on-pin' ? [touch.pin] : [touch.pin, touch.knownPin];
}
