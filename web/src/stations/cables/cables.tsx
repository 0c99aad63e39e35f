import { useState } from 'react';
import { openInletText, type InletRow, type Seat } from '@fairwatt/core';
import { Empty } from '../../controls/empty.tsx';
import { Primary } from '../../controls/fields.tsx';
import { CableDrawing, type DrawnSocket } from '../../drawings/cable-drawing.tsx';
import { ConnectorFace } from '../../drawings/connector-face.tsx';
import { useDesk } from '../../job/job-context.ts';
import { HarnessRecord } from './harness-record.tsx';
import { clockTime } from '../../controls/clock.ts';

const ticks = [['click', 'pushed home, click heard, both halves in'], ['tug', 'tug holds'], ['gap', 'gap even all round']] as const;

function caution(row: InletRow): string | null {
  switch (row.kind) {
    case 'cpu-8': case 'cpu-4': return 'The end marked CPU goes here. A card plug fits with force and carries the opposite polarity.';
    case 'card-8': case 'card-6': return 'The end marked for the card goes here. A processor plug fits with force and burns it.';
    case 'card-16': return 'No bend within 35 mm of the plug, and no side panel pressing on it.';
    case 'small-drive-4': return 'It can go in one pin off or upside down, and burns the drive. Look twice.';
    case 'main-24': case 'main-20': case 'main-own': return 'Hold the board from behind while you push.';
    case 'sata': case 'peripheral-4': return null;
  }
}

/** The harness as it was, the plan for the new supply, and each connector ticked as seated. */
export default function Cables() {
  const { job, view, act, locked, personName, goTo } = useDesk();
  const { cabling, chosen } = view;
  const [wanted, setPage] = useState<'record' | 'plan' | null>(null);
  const page = wanted ?? (job.choice === null && cabling.rows.every((row) => row.state !== 'seated') && job.finding?.kind !== 'no-fault' ? 'record' : 'plan');
  const [picked, setPicked] = useState<string | null>(null);
  const { rows } = cabling;
  const current = rows.find((row) => row.inletId === picked) ?? rows.find((row) => row.state === 'to-seat') ?? rows[0] ?? null;
  const seated = rows.filter((row) => row.state === 'seated').length;
  const open = rows.filter((row) => row.state === 'open');
  const sockets: DrawnSocket[] = cabling.basis === 'plan' && chosen !== null
    ? [...(cabling.plan?.cables ?? []).filter((cable) => cable.socketLabel === null).map((cable) => ({ key: `fixed ${cable.code}`, label: `fixed, ${cable.family}`, used: true })), ...chosen.kit.sockets.map((socket) => ({ key: socket.label, label: socket.label, used: rows.some((row) => row.socketLabel === socket.label) }))]
    : job.cables.map((cable) => ({ key: cable.socketLabel === '' ? `fixed ${cable.label}` : cable.socketLabel, label: cable.socketLabel === '' ? `fixed ${cable.label}` : cable.socketLabel, used: cable.plugs.some((plug) => plug.inletId !== null) }));

  function putSeat(row: InletRow, changes: Partial<Pick<Seat, 'click' | 'tug' | 'gap'>>): boolean {
    if (row.cableCode === null || row.plugIndex === null) return false;
    const before = row.seat;
    const stored = job.seats.find((seat) => seat.inletId === row.inletId);
    return act({ kind: 'put-seat', basedOn: stored?.version ?? 0, seat: { inletId: row.inletId, cableCode: row.cableCode, plugIndex: row.plugIndex, click: before?.click ?? false, tug: before?.tug ?? false, gap: before?.gap ?? false, ...changes } }) === null;
  }
  const after = (row: InletRow) => rows.find((other, index) => index > rows.indexOf(row) && other.state === 'to-seat') ?? rows.find((other) => other !== row && other.state === 'to-seat') ?? null;
  const next = current === null ? null : after(current);

  return (
    <div className="station">
      <div className="work">
        <div className="tabs" role="group" aria-label="Cables" style={{ marginBottom: 14 }}>
          <button type="button" aria-pressed={page === 'record'} onClick={() => setPage('record')}>As it was, {job.cables.length}</button>
          <button type="button" aria-pressed={page === 'plan'} onClick={() => setPage('plan')}>{cabling.basis === 'plan' ? 'Plan and refit' : 'Refit'}, {seated} of {rows.length}</button>
        </div>
        {page === 'record' ? <HarnessRecord /> : cabling.basis === 'none'
          ? <Empty title="Nothing to refit yet">Choose a supply at Replacement, or record the present cables under “As it was”.</Empty>
          : <div className="cables"><CableDrawing title={cabling.basis === 'plan' ? `${chosen?.name ?? ''}: sockets` : `${job.supply?.name || 'Present supply'}: sockets`} rows={rows} sockets={sockets} current={current?.inletId ?? null} onPick={setPicked} />
            <p className="quiet">✓ solid: seated · dashed: to seat · <span style={{ color: 'var(--fail)' }}>! dotted: no cable</span>{cabling.plan !== null && cabling.plan.bagged.length > 0 ? ` · In the bag, labelled ${chosen?.name}: ${cabling.plan.bagged.map((piece) => `${piece.count} × ${piece.kitCableId}`).join(', ')}` : ''}{cabling.plan !== null && cabling.plan.sharedCables > 0 ? ` · ${cabling.plan.sharedCables} card cable shared, within its load` : ''}</p></div>}
      </div>
      <aside className="side" aria-label="Now at">
        {page === 'record' ? <>
          <span className="label">Before anything is unplugged</span>
          <div className="decides">{job.cables.length === 0 ? 'Record each cable' : `${job.cables.length} cables recorded`}</div>
          <p>Socket, plug, inlet and the way it runs. A photograph of the whole helps.</p>
          <p className="caution">Rocker off, lead out, press the button once to drain it, wait; wrist strap on. Then unplug.</p>
          <p className="caution">Cut ties close to the knot and never into a wire.</p>
          <Primary onClick={() => { if (job.choice === null) goTo('replacement'); else setPage('plan'); }}>{job.choice === null ? 'Choose the supply' : 'Go to plan and refit'}</Primary>
        </> : current === null ? <p className="quiet">No inlets.</p> : <>
          <span className="label">Now at</span>
          <div><div className="decides">{current.label}</div><div className="quiet">{current.cableCode === null ? openInletText(current.partName, current.openReason) : `cable ${current.cableCode}${current.socketLabel === null ? '' : `, socket ${current.socketLabel}`}${current.slackMillimetres === null ? '' : `, ${Math.round(current.slackMillimetres)} mm to spare`}`}</div></div>
          <figure><ConnectorFace kind={current.kind} width={292} /><figcaption className="quiet">{['sata', 'peripheral-4', 'small-drive-4'].includes(current.kind) ? 'wire side' : 'wire side, latch up'}</figcaption></figure>
          {caution(current) !== null && <p className="caution">{caution(current)}</p>}
          {current.state === 'open'
            ? <p className="error-text">{current.optional ? 'Ordinary use does without it. Sign it off at Hand over, or find a cable.' : 'Nothing may be closed over it without a signed reason.'}</p>
            : <div className="seat-keys" role="group" aria-label="Seated when">{ticks.map(([key, label], index) => {
              const on = current.seat?.[key] === true;
              return <button key={key} type="button" className="key" data-key={index + 1} aria-pressed={on} disabled={locked} onClick={() => { setPicked(current.inletId); putSeat(current, { [key]: !on }); }}><span className="digit" aria-hidden="true">{on ? '✓' : index + 1}</span><span>{label}</span></button>;
            })}</div>}
          {current.seat !== null && current.state === 'seated' && <p className="quiet">{personName(current.seat.by)}, {clockTime(current.seat.at)}</p>}
          {open.length > 0 && <p className="error-text"><strong>{open.length} open:</strong> {open.map((row) => openInletText(row.label, row.openReason)).join('; ')}.</p>}
          {current.state === 'to-seat'
            ? <Primary disabled={locked} onClick={() => { if (putSeat(current, { click: true, tug: true, gap: true })) setPicked(next?.inletId ?? null); }}>{next === null ? 'Seated: click, tug, gap' : `Seated, next: ${next.label}`}</Primary>
            : <Primary onClick={() => { if (next !== null) setPicked(next.inletId); else goTo(job.choice?.kind === 'replace' ? 'measure' : 'hand-over'); }}>{next !== null ? `Next: ${next.label}` : job.choice?.kind === 'replace' ? 'Prove it: measure' : 'Hand over'}</Primary>}
        </>}
      </aside>
    </div>
  );
}
