import { useState } from 'react';
import { Button, Input, Select } from 'antd';
import { Link } from 'react-router';
import { plugName, recordedRows, type Inlet, type RecordedCable } from '@fairwatt/core';
import { HarnessDrawing } from '../../drawings/harness-drawing.tsx';
import { useDesk } from '../../job/job-context.ts';
import { looks } from '../../looks/looks.ts';
import { CopyHarness } from './copy-harness.tsx';
import { usePointing, type Pointing } from './use-pointing.ts';
import styles from './record-by-drawing.module.css';

const words = { seated: 'recorded', 'to-seat': 'likely', open: 'not recorded', wrong: 'adapter stays out' } as const;

/**
 * The harness recorded by pointing: a socket, then each inlet that its cable goes to; an inlet without a socket is
 * that of a fixed cable. Two inlets are exchanged by drag, or by a list.
 */
export function RecordByDrawing({ onStart }: { readonly onStart: () => void }) {
  const { job, locked } = useDesk();
  const pointing = usePointing();
  const { inlets, left, cable, press } = pointing;
  return (
    <section aria-label="Record by pointing">
      <Hand pointing={pointing} />
      <HarnessDrawing
        title={`${job.supply?.name || 'Present supply'}: sockets`}
        rows={recordedRows(job)}
        sockets={pointing.sockets}
        current={pointing.picked}
        litCable={cable?.label ?? null}
        currentSockets={pointing.currentSockets}
        unplugged={new Set()}
        zoom={1}
        words={words}
        onPick={(id) => {
          const inlet = inlets.find((one) => one.id === id);
          if (inlet !== undefined) press(inlet);
        }}
        onPickSocket={pointing.take}
        onMove={locked ? undefined : pointing.exchange}
      />
      <div className={`${looks.rowActions} ${styles.starts}`}>
        {left.length > 1 && (
          <Button className={looks.strong} data-record-next disabled={locked} onClick={onStart}>
            Start from a likely harness
          </Button>
        )}
        {left.length > 0 && <CopyHarness />}
        <NameSocket onName={pointing.nameSocket} />
      </div>
      <div className={`${looks.rowActions} ${styles.inlets ?? ''}`}>
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

/** A socket that no list knows, by its print. */
function NameSocket({ onName }: { readonly onName: (label: string) => void }) {
  const { locked } = useDesk();
  const [name, setName] = useState('');
  return (
    <Input
      className={styles.socket ?? ''}
      aria-label="Another socket"
      placeholder="another socket, Enter"
      value={name}
      maxLength={30}
      disabled={locked}
      onChange={(event) => setName(event.target.value)}
      onPressEnter={() => {
        if (name.trim() === '') return;
        onName(name.trim());
        setName('');
      }}
    />
  );
}

/** What is in hand: nothing yet and what to press, or a cable with its way. */
function Hand({ pointing }: { readonly pointing: Pointing }) {
  const { left, cable, socket, plug, told, forget } = pointing;
  return (
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
        <InHand
          cable={cable}
          inlets={pointing.inlets}
          picked={pointing.picked}
          secondEnds={pointing.secondEnds}
          onPut={pointing.put}
          onExchange={pointing.exchange}
          onNext={pointing.next}
        />
      )}
      {told !== null && (
        <p className={looks.errorText} role="alert">
          {told}
        </p>
      )}
    </div>
  );
}

/** The cable that is being recorded: where it goes, the way it runs, and its plug put elsewhere. */
function InHand({
  cable,
  inlets,
  picked,
  secondEnds,
  onPut,
  onExchange,
  onNext,
}: {
  readonly cable: RecordedCable;
  readonly inlets: readonly Inlet[];
  readonly picked: string | null;
  readonly secondEnds: readonly string[];
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
        {secondEnds.length > 0 && (
          <Select
            aria-label={`Both sockets of cable ${cable.label}`}
            placeholder="Two plugs at the supply? Both sockets …"
            value={secondEnds.includes(cable.socketLabel) ? cable.socketLabel : null}
            disabled={locked}
            popupMatchSelectWidth={false}
            onChange={(socketLabel: string) => onPut({ ...cable, socketLabel })}
            options={secondEnds.map((name) => ({ value: name, label: name }))}
          />
        )}
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
