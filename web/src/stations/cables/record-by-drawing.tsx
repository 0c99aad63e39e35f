import { useState } from 'react';
import { Button, Input, Select } from 'antd';
import { Link, useSearchParams } from 'react-router';
import {
  cableAt,
  newCable,
  partsAt,
  plugKinds,
  plugName,
  plugServes,
  pointedAt,
  presentModel,
  recordedRows,
  socketAccepts,
  withInlet,
  type Inlet,
  type RecordedCable,
} from '@fairwatt/core';
import { HarnessDrawing, type DrawnSocket } from '../../drawings/harness-drawing.tsx';
import { useDesk } from '../../job/job-context.ts';
import { CopyHarness } from './copy-harness.tsx';
import styles from './record-by-drawing.module.css';

const words = { seated: 'recorded', 'to-seat': 'likely', open: 'not recorded' } as const;

const fixedKey = (cable: Pick<RecordedCable, 'label'>) => `fixed ${cable.label}`;
const keyOf = (cable: RecordedCable) => cable.socketLabel || fixedKey(cable);

/**
 * The harness recorded by pointing: a socket, then each inlet that its cable goes to; an inlet without a socket is
 * that of a fixed cable. Two inlets are exchanged by drag, or by a list.
 */
export function RecordByDrawing({ onStart }: { readonly onStart: () => void }) {
  const { job, shop, act, locked } = useDesk();
  const [inHand, setInHand] = useState<string | null>(null);
  const [socket, setSocket] = useState('');
  const [named, setNamed] = useState<readonly string[]>([]);
  const [name, setName] = useState('');
  const [told, setTold] = useState<string | null>(null);
  const [picked, setPicked] = useState<string | null>(null);
  // The guide leads here with the plug that it named.
  const [params, setParams] = useSearchParams();
  const plug = plugKinds.find((kind) => kind === params.get('plug')) ?? null;
  const rows = recordedRows(job);
  const inlets = partsAt(job.parts, 'present').flatMap((part) => part.inlets);
  const left = inlets.filter(({ id }) => cableAt(job.cables, id) === null);
  const kit = presentModel(job, shop.supplies)?.kit ?? null;
  const cable = job.cables.find(({ id }) => id === inHand) ?? null;
  const sockets = drawnSockets(job.cables, [...(kit?.sockets.map(({ label }) => label) ?? []), ...named]);

  const put = (changed: RecordedCable) => {
    // Whoever changes it has looked at it.
    const { version, likely: _likely, ...rest } = changed;
    return act({ kind: 'put-cable', cable: rest, basedOn: version }) === null;
  };
  function take(key: string): void {
    setTold(null);
    setPicked(null);
    const there = job.cables.find((one) => keyOf(one) === key);
    setInHand(there?.id ?? null);
    setSocket(there?.socketLabel ?? key);
  }
  function next(): void {
    setInHand(null);
    setSocket('');
    setTold(null);
    setPicked(null);
  }
  function press(inlet: Inlet): void {
    setTold(null);
    const own = cableAt(job.cables, inlet.id);
    if (own !== null) {
      setInHand(own.id);
      setSocket(own.socketLabel);
      setPicked(inlet.id);
      return;
    }
    if (locked) return;
    setPicked(null);
    if (plug !== null && !plugServes(plug, inlet.kind)) {
      setTold(`A plug “${plugName[plug]}” does not go into ${inlet.label}.`);
      return;
    }
    if (socketAccepts(kit, socket, inlet.kind) === false) {
      setTold(`Socket ${socket} of this supply takes no cable to ${inlet.label}.`);
      return;
    }
    const goes = cable === null ? 'another' : pointedAt(cable, inlet);
    if (cable !== null && goes === 'no') {
      setTold(`Cable ${cable.label} from ${socket} does not go to ${inlet.label} as well: pick that one's socket.`);
      return;
    }
    if (cable !== null && goes === 'more') {
      put(withInlet(cable, inlet));
      return;
    }
    const id = crypto.randomUUID();
    const made = newCable(job, id, socket, inlet);
    const asNamed = plug === null ? made : { ...made, plugs: [{ kind: plug, inletId: inlet.id }] };
    if (act({ kind: 'put-cable', cable: asNamed, basedOn: 0 }) !== null) return;
    setInHand(id);
    if (plug !== null) forget();
  }
  /** What the guide named is recorded, or was passed over. */
  function forget(): void {
    const rest = new URLSearchParams(params);
    rest.delete('plug');
    setParams(rest, { replace: true });
  }
  function exchange(from: string, to: string): void {
    const own = cableAt(job.cables, from);
    if (own === null || locked) return;
    act({
      kind: 'swap-inlets',
      cableId: own.id,
      otherCableId: cableAt(job.cables, to)?.id ?? null,
      inletId: from,
      otherInletId: to,
      basedOn: own.version,
    });
    setPicked(to);
  }
  const pressId = (id: string) => {
    const inlet = inlets.find((one) => one.id === id);
    if (inlet !== undefined) press(inlet);
  };
  return (
    <section aria-label="Record by pointing">
      <div className={`${styles.hand} ${left.length === 0 && cable === null ? styles.whole : ''}`} role="status">
        {cable === null ? (
          <p>
            {plug !== null && (
              <>
                <strong>{plugName[plug]}</strong>: press the inlet that it is in.{' '}
                <Button type="link" onClick={forget}>
                  none of them
                </Button>{' '}
              </>
            )}
            {left.length === 0 && socket === ''
              ? 'Every inlet has its cable. Press one for its way, or to put its plug elsewhere.'
              : socket === ''
                ? 'Press a socket, then each inlet that its cable goes to. An inlet by itself is that of a fixed cable.'
                : `From ${socket}: press each inlet that its cable goes to.`}
          </p>
        ) : (
          <InHand cable={cable} inlets={inlets} picked={picked} onPut={put} onExchange={exchange} onNext={next} />
        )}
        {told !== null && (
          <p className="error-text" role="alert">
            {told}
          </p>
        )}
      </div>
      <HarnessDrawing
        title={`${job.supply?.name || 'Present supply'}: sockets`}
        rows={rows}
        sockets={sockets}
        current={picked}
        litCable={cable?.label ?? null}
        currentSocket={cable === null ? socket : keyOf(cable)}
        unplugged={new Set()}
        zoom={1}
        words={words}
        onPick={pressId}
        onPickSocket={take}
        onMove={locked ? undefined : exchange}
      />
      <div className={`row-actions ${styles.starts}`}>
        {left.length > 1 && (
          <Button className="strong" data-record-next disabled={locked} onClick={onStart}>
            Start from a likely harness
          </Button>
        )}
        {left.length > 0 && <CopyHarness />}
        <Input
          className={styles.socket ?? ''}
          aria-label="Another socket"
          placeholder="another socket, Enter"
          value={name}
          maxLength={30}
          disabled={locked}
          onChange={(event) => setName(event.target.value)}
          onPressEnter={() => {
            const label = name.trim();
            if (label === '') return;
            if (!sockets.some(({ key }) => key === label)) setNamed([...named, label]);
            setName('');
            take(label);
          }}
        />
      </div>
      <div className="row-actions">
        {left.map((inlet) => (
          <Button key={inlet.id} data-record-next disabled={locked} onClick={() => press(inlet)}>
            + {inlet.label}
          </Button>
        ))}
        {left.length === 0 && inlets.length > 0 && <span>Every inlet has its cable.</span>}
      </div>
    </section>
  );
}

/** The fixed cables, then the supply's sockets as far as they are known, then those that were recorded. */
function drawnSockets(cables: readonly RecordedCable[], known: readonly string[]): DrawnSocket[] {
  const recorded = cables.map(({ socketLabel }) => socketLabel).filter((label) => label !== '');
  const labels = [...new Set([...known, ...recorded])];
  const used = new Set(recorded);
  return [
    ...cables
      .filter(({ socketLabel }) => socketLabel === '')
      .map((cable) => ({ key: fixedKey(cable), label: fixedKey(cable), used: true, plugged: false })),
    ...labels.map((label) => ({ key: label, label, used: used.has(label), plugged: false })),
  ];
}

/** The cable that is being recorded: where it goes, the way it runs, and its plug put elsewhere. */
function InHand({
  cable,
  inlets,
  picked,
  onPut,
  onExchange,
  onNext,
}: {
  readonly cable: RecordedCable;
  readonly inlets: readonly Inlet[];
  readonly picked: string | null;
  readonly onPut: (cable: RecordedCable) => boolean;
  readonly onExchange: (from: string, to: string) => void;
  readonly onNext: () => void;
}) {
  const { job, locked } = useDesk();
  const [first] = cable.plugs;
  const labelOf = (id: string | null) => inlets.find((inlet) => inlet.id === id)?.label ?? 'free';
  const from = inlets.find(({ id }) => id === picked) ?? null;
  return (
    <>
      <p>
        {first !== undefined && (
          <Link className={styles.guide ?? ''} to={`/guide?show=${encodeURIComponent(first.kind)}&job=${job.code}`}>
            what is this?
          </Link>
        )}
        <strong>Cable {cable.label}</strong>, {cable.socketLabel === '' ? 'fixed' : `from ${cable.socketLabel}`}:{' '}
        {cable.plugs.map(({ inletId }) => labelOf(inletId)).join(', ')}
      </p>
      <div className={styles.fields}>
        <Input
          aria-label={`The way of cable ${cable.label}`}
          placeholder="way: hole 2, front clip, top hook"
          value={cable.way}
          maxLength={300}
          disabled={locked}
          onChange={(event) => onPut({ ...cable, way: event.target.value })}
          onPressEnter={onNext}
        />
        {from !== null && (
          <Select
            aria-label={`The plug at ${from.label} is really at`}
            placeholder={`The plug at ${from.label} is really at …`}
            value={null}
            disabled={locked}
            popupMatchSelectWidth={false}
            onChange={(to: string | null) => {
              if (to !== null) onExchange(from.id, to);
            }}
            options={inlets.filter(({ id }) => id !== from.id).map(({ id, label }) => ({ value: id, label }))}
          />
        )}
        <Button onClick={onNext}>Next cable</Button>
      </div>
    </>
  );
}
