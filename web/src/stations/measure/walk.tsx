import { useState } from 'react';
import { Button } from 'antd';
import {
  inletName,
  judgeProbe,
  nextTouch,
  probedCode,
  probedCodeText,
  probeWordText,
  type CableProbe,
  type Guide,
  type JudgedPin,
  type Phase,
  type PinFinding,
  type ProbedPin,
  type ProbeVerdict,
  type Touch,
} from '@fairwatt/core';
import { useNetworkInstrumentsQuery } from '../../app/api.ts';
import { useAppSelector } from '../../app/store.ts';
import { Choice } from '../../controls/choice.tsx';
import { ConnectorFace, type FaceSide } from '../../drawings/connector-face.tsx';
import { useDesk } from '../../job/job-context.ts';
import { looks, verdictLook } from '../../looks/looks.ts';
import { HandsFreeWalk } from './hands-free-walk.tsx';
import { WalkAsProof } from './walk-as-proof.tsx';
import { WalkEntry, type PutPin } from './walk-entry.tsx';
import { WalkReadings } from './walk-readings.tsx';
import { walkMark, wrongPins } from './walk-words.ts';
import { signs } from '../../controls/signs.tsx';
import styles from './walk-head.module.css';

const marks: Record<Exclude<PinFinding, 'missing'>, string> = {
  right: '✓',
  weak: '▲',
  wrong: '✕',
  unproved: '?',
  open: '▲',
};

/** The pin at hand: the one that was clicked, else the next. First every pin for harm, then the grounds. */
const pinAt = ({ pins }: ProbeVerdict, chosen: number | null, barred: boolean): JudgedPin | null =>
  pins.find((pin) => pin.pin === chosen && (!barred || pin.value !== null)) ??
  (barred
    ? undefined
    : (pins.find((pin) => pin.finding === 'missing') ?? pins.find((pin) => pin.finding === 'unproved'))) ??
  null;

/** A meter over the network that no sweep has now. */
function useFreeMeter() {
  const network = useNetworkInstrumentsQuery();
  const sweeping = useAppSelector(({ sweep }) => (sweep !== null && sweep.end === null ? sweep.meterId : null));
  return network.data?.find((item) => item.role === 'meter' && item.id !== sweeping);
}

interface WalkProps {
  readonly probe: CableProbe;
  readonly phase: Phase;
  /** Nothing is powered now, so no further pin is touched; a mistyped one can still be put right. */
  readonly barred: boolean;
  readonly onClose: () => void;
}

const walkedText = (probe: CableProbe, guide: Guide, barred: boolean) =>
  `${wrongPins(probe, guide)}. ` +
  (barred ? 'Mistyped? Click the pin and type it anew.' : 'Click a pin to touch it again.');

function DoNotPlugIn({ told }: { readonly told: string }) {
  return (
    <p className={`${looks.caution} ${looks.below}`}>
      Do not plug this in: {told}. Mark the cable and keep it out of the bag.
    </p>
  );
}

/** The walk along one plug: its face, the pin at hand, and what it came to. */
export function Walk({ probe, phase, barred, onClose }: WalkProps) {
  const { job, view, act, locked } = useDesk();
  const [side, setSide] = useState<FaceSide>('contacts');
  const [chosen, setChosen] = useState<number | null>(null);
  /** The pin that was clicked is measured anew, volts first. */
  const [anew, setAnew] = useState(false);
  /** Both hands at the probes: the meter's held figures are taken by themselves; null while they are typed. */
  const [free, setFree] = useState<{ readonly lastPin: number | null } | null>(null);
  const meter = useFreeMeter();
  const guide = view[phase].guide;
  const verdict = judgeProbe(probe.plug, probe.pins, guide);
  const at = pinAt(verdict, chosen, barred);
  const putPins = (pins: readonly ProbedPin[]) => {
    const { id, label, plug, note } = probe;
    const sorted = [...pins].sort((a, b) => a.pin - b.pin);
    return act({ kind: 'put-probe', probe: { id, label, plug, pins: sorted, note }, basedOn: probe.version }) === null;
  };
  const without = (pin: number) => probe.pins.filter((item) => item.pin !== pin);
  const put: PutPin = (value, ground) => {
    if (at === null) return false;
    if (!putPins([...without(at.pin), { pin: at.pin, value, ...(ground === undefined ? {} : { ground }) }]))
      return false;
    setChosen(null);
    setAnew(false);
    return true;
  };
  return (
    <section className={looks.block} aria-label={`Walk along ${probe.label}`} data-walk={verdict.word}>
      <WalkHead probe={probe} verdict={verdict} side={side} onSide={setSide} onClose={onClose} />
      <ConnectorFace
        kind={probe.plug}
        lit={litPins(free === null ? null : nextTouch(verdict), at?.pin)}
        side={side}
        width={760}
        cellMost={58}
        marks={marksOf(verdict)}
        onPin={(pin) => {
          setChosen(pin);
          setAnew(true);
        }}
      />
      <Coded verdict={verdict} />
      {free !== null && meter !== undefined && !barred ? (
        <HandsFreeWalk
          meter={meter}
          probe={probe}
          verdict={verdict}
          lastPin={free.lastPin}
          job={job.code}
          locked={locked}
          onPut={(pin) => {
            if (putPins([...without(pin.pin), pin])) setFree({ lastPin: pin.pin });
          }}
          onTakeBack={(pin) => {
            if (putPins(without(pin))) setFree({ lastPin: null });
          }}
          onStop={() => setFree(null)}
        />
      ) : at === null ? (
        <p className={looks.below}>{walkedText(probe, guide, barred)}</p>
      ) : (
        <WalkEntry
          at={at}
          // The probes change places once, after every pin was looked at for harm.
          proving={(at.finding === 'unproved' || at.finding === 'open') && !anew}
          onPut={put}
        >
          {meter !== undefined && !barred && (
            <Button disabled={locked} onClick={() => setFree({ lastPin: null })}>
              Hands free with {meter.name}
            </Button>
          )}
        </WalkEntry>
      )}
      <WalkReadings probe={probe} verdict={verdict} phase={phase} />
      {verdict.word === 'safe' && <WalkAsProof probe={probe} />}
      {verdict.word === 'wrong' && <DoNotPlugIn told={wrongPins(probe, guide)} />}
    </section>
  );
}

function WalkHead({
  probe,
  verdict,
  side,
  onSide,
  onClose,
}: {
  readonly probe: CableProbe;
  readonly verdict: ProbeVerdict;
  readonly side: FaceSide;
  readonly onSide: (side: FaceSide) => void;
  readonly onClose: () => void;
}) {
  return (
    <div className={styles.walkHead}>
      <h2>
        {probe.label}, {inletName[probe.plug]}
      </h2>
      <span className={`${verdictLook(walkMark[verdict.word])} ${looks.large}`}>{probeWordText[verdict.word]}</span>
      <Choice
        label="Seen from"
        value={side}
        options={(['contacts', 'wires'] as const).map((value) => ({ value, label: <>from the {value}</> }))}
        onPick={onSide}
      />
      <Button icon={signs.previous} type="link" onClick={onClose}>
        all walks
      </Button>
    </div>
  );
}

/** The watts that the small contacts of a 16-pin plug were found to code. */
function Coded({ verdict }: { readonly verdict: ProbeVerdict }) {
  const code = probedCode(verdict);
  if (code === null) return null;
  return (
    <p className={code === 'none' ? `${looks.caution} ${looks.below}` : looks.below} data-coded={code}>
      {probedCodeText[code]}
    </p>
  );
}

const marksOf = ({ pins }: ProbeVerdict): ReadonlyMap<number, string> =>
  new Map(
    pins.flatMap((pin): [number, string][] => (pin.finding === 'missing' ? [] : [[pin.pin, marks[pin.finding]]])),
  );

/** The pins to touch: also the one that red stays on, with both hands at the probes. */
function litPins(touch: Touch | null, typed: number | undefined): readonly number[] {
  if (touch === null) return typed === undefined ? [] : [typed];
  return touch.way === 'red-on-pin' ? [touch.pin] : [touch.pin, touch.knownPin];
}
