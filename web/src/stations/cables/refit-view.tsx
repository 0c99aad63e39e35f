import { useCallback, useMemo, useState, type ReactNode } from 'react';
import { Button } from 'antd';
import { Link, useSearchParams } from 'react-router';
import {
  breachText,
  cableFiguresText,
  carriesOpposite,
  endsNamed,
  explainOpen,
  figuresOf,
  inletCaution,
  kitCableText,
  nextStage,
  openBecauseText,
  presentModel,
  ownPlugText,
  openInletText,
  fittingText,
  pieceOf,
  pinRefusalText,
  seatChecks,
  seatCheckText,
  spareId,
  sparesToProbe,
  stepsOf,
  unpluggedInlets,
  plugServes,
  adapterNote,
  allowedAdapters,
  sparesFor,
  type CableKit,
  type InletRow,
  type SeatCheck,
} from '@fairwatt/core';
import { Empty } from '../../controls/empty.tsx';
import { Primary } from '../../controls/fields.tsx';
import { clockTime } from '../../controls/clock.ts';
import { Spoken } from '../../controls/spoken.tsx';
import { ConnectorFace } from '../../drawings/connector-face.tsx';
import { HarnessDrawing, type DrawnSocket } from '../../drawings/harness-drawing.tsx';
import { useDesk } from '../../job/job-context.ts';
import type { OpenWay } from './cables.tsx';
import { BagLeftovers } from './bag-leftovers.tsx';
import { recordedSockets } from './recorded-sockets.ts';
import { MovePlug } from './move-plug.tsx';
import styles from './refit-view.module.css';

const zooms = [1, 1.35, 1.8] as const;

/** What was ticked for another supply is not taken over; that it is kept is said where the ticks are missed. */
function LaidAsideNote() {
  const { job, shop } = useDesk();
  return job.laidAside.map((work) => (
    <p key={work.fitting} className="quiet" data-laid-aside={work.fitting}>
      {work.seats.length} plugs and {work.steps.length} steps were done for {fittingText(work.fitting, shop.supplies)};
      they stand again when that is chosen again.
    </p>
  ));
}

const withoutLatch: readonly InletRow['kind'][] = ['sata', 'peripheral-4', 'small-drive-4'];
const hasLatch = (kind: InletRow['kind']) => !withoutLatch.includes(kind);

/** The cable of an inlet and its socket, or why it has none. */
const whereFrom = (
  { cableCode, socketLabel, slackMillimetres, partName, openReason }: InletRow,
  kit: CableKit | null,
): string =>
  cableCode === null
    ? openInletText(partName, openReason)
    : [
        `cable ${cableCode}`,
        ...(socketLabel === null
          ? []
          : [`${endsNamed(kit, socketLabel).length > 1 ? 'sockets' : 'socket'} ${socketLabel}`]),
        ...(slackMillimetres === null ? [] : [`${Math.round(slackMillimetres)} mm to spare`]),
      ].join(', ');

/** The plan in one picture, and one connector after the other ticked as seated; plugs are moved by hand here. */
export function RefitView({ tabs, onWay }: { readonly tabs: ReactNode; readonly onWay: OpenWay }) {
  const { job, view, act, locked, personName, goTo, inletLabel, shop, undone } = useDesk();
  const { cabling, chosen } = view;
  const { rows, plan } = cabling;
  const [params] = useSearchParams();
  const [picked, setPicked] = useState<string | null>(params.get('inlet'));
  const [shownUndone, setShownUndone] = useState(undone);
  // The connector whose tick was taken back stands there again.
  if (undone !== shownUndone) {
    setShownUndone(undone);
    const seat = undone?.find((act) => act.kind === 'put-seat');
    if (seat !== undefined) setPicked(seat.seat.inletId);
  }
  const [moving, setMoving] = useState(false);
  const [zoom, setZoom] = useState<number>(1);
  const stay = useCallback(() => setMoving(false), []);
  const asked = params.get('cable');
  const current =
    rows.find((row) => row.inletId === picked) ??
    rows.find((row) => picked === null && row.cableCode === asked) ??
    rows.find((row) => row.state === 'to-seat') ??
    rows.find((row) => row.state === 'wrong') ??
    rows[0] ??
    null;
  const ends = stepsOf(job, cabling, 'refit').filter(({ kind }) => kind === 'supply-end');
  const isIn = (label: string) => ends.some(({ socket, done }) => socket === label && done !== null);
  const taken = new Set((plan?.cables ?? []).flatMap((cable) => endsNamed(cabling.kit, cable.socketLabel ?? '')));
  const sockets: DrawnSocket[] =
    cabling.basis === 'plan' && chosen !== null
      ? [
          ...(plan?.cables ?? [])
            .filter((cable) => cable.socketLabel === null)
            .map((cable) => ({
              key: `fixed ${cable.code}`,
              label: `fixed, ${cable.family}`,
              used: true,
              plugged: false,
            })),
          ...chosen.kit.sockets.map((socket) => ({
            key: socket.label,
            label: socket.label,
            used: taken.has(socket.label),
            plugged: isIn(socket.label),
          })),
        ]
      : recordedSockets(job, rows, presentModel(job, shop.supplies)?.kit ?? null).map(({ label, used }) => ({
          key: label,
          label,
          used,
          plugged: isIn(label),
        }));
  if (cabling.basis === 'none' || current === null)
    return (
      <>
        <div className="work">
          {tabs}
          <Empty title="Nothing to refit yet">
            Choose a supply at Replacement, or record the present cables under “As it was”.
          </Empty>
        </div>
        <aside className="side">
          <Primary onClick={() => goTo('replacement')}>Choose the supply</Primary>
        </aside>
      </>
    );

  const unplugged = unpluggedInlets(job);
  const toSeat = rows.filter((row) => row.state === 'to-seat');
  const seated = rows.filter((row) => row.state === 'seated');
  const unchecked = seated.filter((row) => row.seat?.rechecked == null);
  const open = rows.filter((row) => row.state === 'open');
  const after =
    toSeat.find((row) => rows.indexOf(row) > rows.indexOf(current)) ?? toSeat.find((row) => row !== current) ?? null;
  const checks = current.plugKind === null ? [] : seatChecks(current.kind, current.plugKind);
  function putSeat(row: InletRow, changes: Partial<Record<SeatCheck, boolean>>): boolean {
    if (row.cableCode === null || row.plugIndex === null) return false;
    const { seat } = row;
    const stored = job.seats.find((item) => item.inletId === row.inletId);
    const none = { click: false, tug: false, gap: false, halves: false, bend: false, panel: false };
    const before =
      seat === null
        ? none
        : { click: seat.click, tug: seat.tug, gap: seat.gap, halves: seat.halves, bend: seat.bend, panel: seat.panel };
    return (
      act({
        kind: 'put-seat',
        basedOn: stored?.version ?? 0,
        seat: {
          inletId: row.inletId,
          cableCode: row.cableCode,
          piece: pieceOf(row),
          plugIndex: row.plugIndex,
          ...before,
          ...changes,
        },
      }) === null
    );
  }
  const nextCheck = checks.find((check) => current.seat?.[check] !== true);
  /** Ticks what holds; with the last of it the next connector comes. */
  function seat(changes: Partial<Record<SeatCheck, boolean>>): void {
    const isLast = checks.every((check) => changes[check] === true || current!.seat?.[check] === true);
    if (putSeat(current!, changes)) setPicked(isLast ? (after?.inletId ?? null) : current!.inletId);
  }
  /** The plug in one inlet goes to another, by hand. */
  function movePlug(from: string, to: string): void {
    const row = rows.find((item) => item.inletId === from);
    const own = job.pins.find((pin) => pin.inletId === from);
    const source =
      row?.kitCableId != null && row.copy !== null && row.plugIndex !== null
        ? { kitCableId: row.kitCableId, copy: row.copy, plugIndex: row.plugIndex }
        : own;
    if (source === undefined || locked) return;
    if (own !== undefined && act({ kind: 'drop-pin', inletId: from, basedOn: own.version }) !== null) return;
    const there = job.pins.find((pin) => pin.inletId === to);
    if (
      act({
        kind: 'put-pin',
        basedOn: there?.version ?? 0,
        pin: {
          inletId: to,
          kitCableId: source.kitCableId,
          copy: source.copy,
          plugIndex: source.plugIndex,
          socketLabel: null,
        },
      }) === null
    )
      setPicked(to);
  }
  const stepsLeft = nextStage(job, view.openPoints) === 'refit';
  const figures = figuresOf(cabling).find((cable) => cable.code === current.cableCode);
  return (
    <>
      <div className="work">
        {tabs}
        <div className="cables">
          <HarnessDrawing
            title={
              cabling.basis === 'plan'
                ? `${chosen?.name ?? ''}: sockets`
                : `${job.supply?.name || 'Present supply'}: sockets`
            }
            rows={rows}
            sockets={sockets}
            current={current.inletId}
            litCable={picked === null ? asked : null}
            unplugged={unplugged}
            zoom={zoom}
            onPick={setPicked}
            onMove={cabling.basis === 'plan' && !locked ? movePlug : undefined}
          />
          <div className="harness-legend quiet">
            <span>✓ solid: seated</span>
            {rows.some((row) => row.state === 'stays') && <span>solid, no mark: stays in</span>}
            <span>dashed: to seat</span>
            <span>○ old plug out</span>
            <span style={{ color: 'var(--fail)' }}>! dotted: no cable</span>
            <span style={{ color: 'var(--fail)' }}>✕ wrong plug</span>
            {cabling.basis === 'plan' && <span>drag a plug, or press m</span>}
            <span className="zoom" role="group" aria-label="Size of the drawing">
              {zooms.map((value) => (
                <Button type="link" key={value} aria-pressed={zoom === value} onClick={() => setZoom(value)}>
                  {Math.round(value * 100)} %
                </Button>
              ))}
            </span>
          </div>
          <LaidAsideNote />
          <BagLeftovers />
          {plan !== null && plan.sharedCables > 0 && (
            <p className="quiet">{plan.sharedCables} card cable shared, within its load.</p>
          )}
          {plan?.proved === false && (
            <p className="quiet">
              So many different inlets that a better plan may exist; this is the best that was seen.
            </p>
          )}
          {plan?.refused.map((refusal) => (
            <p key={`${refusal.code}${refusal.inletId}`} className="error-text" role="status">
              {pinRefusalText(refusal, inletLabel)}{' '}
              <Button
                type="link"
                disabled={locked}
                onClick={() => {
                  const pin = job.pins.find((item) => item.inletId === refusal.inletId);
                  if (pin !== undefined) act({ kind: 'drop-pin', inletId: pin.inletId, basedOn: pin.version });
                }}
              >
                leave it to the plan
              </Button>
            </p>
          ))}
          {cabling.breaches.map((breach) => (
            <p key={JSON.stringify(breach)} className="error-text" role="status" data-breach={breach.code}>
              {breachText(breach, inletLabel)}
            </p>
          ))}
        </div>
      </div>
      <aside className="side" aria-label="Now at">
        <div className="now-head">
          <span className="label">Now at</span>
          {cabling.basis === 'plan' && !moving && (
            <Button
              type="link"
              data-letter="m"
              disabled={locked}
              onClick={() => {
                setPicked(current.inletId);
                setMoving(true);
              }}
            >
              {current.pinned ? 'move or give back' : 'use another plug'} <kbd aria-hidden="true">m</kbd>
            </Button>
          )}
        </div>
        <div>
          <Spoken>{`${current.label}, ${whereFrom(current, cabling.kit)}`}</Spoken>
          <div className="decides">{current.label}</div>
          <div className="quiet">{whereFrom(current, cabling.kit)}</div>
          {current.kitCableId !== null && spareId(current.kitCableId) !== null && (
            <div className="quiet">
              from the bags:{' '}
              <strong>{shop.bags.cables.find((cable) => cable.id === spareId(current.kitCableId!))?.label}</strong>
            </div>
          )}
          {cabling.basis === 'record' && current.kitCableId !== null && spareId(current.kitCableId) === null && (
            <div className="quiet">not recorded so far: from this supply's own kit, {current.kitCableId}</div>
          )}
          {current.adapterId !== null && <AdapterLine row={current} />}
          {figures !== undefined && (
            <div className="quiet" data-figures>
              {cableFiguresText(figures)}
            </div>
          )}
        </div>
        {moving && cabling.basis === 'plan' ? (
          <MovePlug row={current} onDone={stay} />
        ) : (
          <>
            <figure>
              <ConnectorFace kind={current.kind} width={292} />
              <figcaption className="quiet">
                {hasLatch(current.kind) ? 'wire side, latch up' : 'wire side'} ·{' '}
                <Link to={`/guide?show=${current.kind}&job=${job.code}`}>what is this?</Link>
              </figcaption>
            </figure>
            {inletCaution(current.kind) !== null && (
              <p className="caution">
                <span>{inletCaution(current.kind)}</span>
              </p>
            )}
            {current.state === 'open' && <WhyOpen row={current} />}
            {current.state === 'wrong' && (
              <p className="error-text">
                <strong>Wrong plug.</strong>{' '}
                {current.plugKind !== null && carriesOpposite(current.plugKind, current.kind)
                  ? 'It carries +12 V where ground belongs and burns what it is in. '
                  : ''}
                Take it out before the lead goes in. Move it, or leave it to the plan.
              </p>
            )}
            {current.breaches.map((breach) => (
              <p key={JSON.stringify(breach)} className="error-text">
                {breachText(breach, inletLabel)}
              </p>
            ))}
            {current.state === 'stays' && (
              <p className="quiet">It stays in, as recorded. Tick it where it was out all the same.</p>
            )}
            {(current.state === 'to-seat' || current.state === 'seated' || current.state === 'stays') && (
              <div className="seat-keys" role="group" aria-label="Seated when">
                {checks.map((check, index) => {
                  const on = current.seat?.[check] === true;
                  return (
                    <Button
                      type="text"
                      className="key"
                      key={check}
                      data-key={index + 1}
                      aria-pressed={on}
                      disabled={locked}
                      onClick={() => {
                        setPicked(current.inletId);
                        putSeat(current, { [check]: !on });
                      }}
                    >
                      <span className="digit" aria-hidden="true">
                        {on ? '✓' : index + 1}
                      </span>
                      <span>{seatCheckText(check)}</span>
                    </Button>
                  );
                })}
              </div>
            )}
            {current.seat !== null && current.state === 'seated' && (
              <p className="quiet">
                {personName(current.seat.by)}, {clockTime(current.seat.at)}
                {current.seat.rechecked === null ? '' : `; looked at again ${clockTime(current.seat.rechecked.at)}`}
              </p>
            )}
            {open.length > 0 && current.state !== 'open' && (
              <p className="error-text">
                <strong>{open.length} open:</strong>{' '}
                {open.map((row) => openInletText(row.label, row.openReason)).join('; ')}.
              </p>
            )}
            {current.state === 'to-seat' && checks.length > 1 && (
              <Button
                type="link"
                data-letter="a"
                className={styles.all ?? ''}
                disabled={locked}
                onClick={() => seat(Object.fromEntries(checks.map((check) => [check, true])))}
              >
                All {checks.length} of these hold <kbd aria-hidden="true">a</kbd>
              </Button>
            )}
            {current.state === 'to-seat' && nextCheck !== undefined ? (
              <Primary disabled={locked} onClick={() => seat({ [nextCheck]: true })}>
                Yes: {seatCheckText(nextCheck)}
              </Primary>
            ) : toSeat.length > 0 ? (
              <Primary onClick={() => setPicked((after ?? toSeat[0]!).inletId)}>
                Next: {(after ?? toSeat[0]!).label}
              </Primary>
            ) : unchecked.length > 0 ? (
              <Primary
                disabled={locked}
                onClick={() => act({ kind: 'recheck-seats', inletIds: seated.map((row) => row.inletId) })}
              >
                Tied, and all {seated.length} looked at again
              </Primary>
            ) : (
              <Primary
                onClick={() => {
                  if (stepsLeft) onWay('refit');
                  else if (job.choice?.kind === 'replace') goTo('measure');
                  else goTo('hand-over');
                }}
              >
                {stepsLeft ? 'Steps of the refit' : job.choice?.kind === 'replace' ? 'Prove it: measure' : 'Hand over'}
              </Primary>
            )}
          </>
        )}
      </aside>
    </>
  );
}

function AdapterLine({ row }: { readonly row: InletRow }) {
  const { shop } = useDesk();
  const adapter = shop.bags.adapters.find((item) => item.id === row.adapterId);
  return (
    <div className="quiet">
      through <strong>{adapter?.label ?? row.adapterId}</strong>
      {adapter === undefined ? '' : `: ${adapterNote(adapter)}`}
      {row.legs.length > 0 ? `; also ${row.legs.map((leg) => leg.cableCode).join(', ')}` : ''}
    </div>
  );
}

/** Why an inlet has no cable, and the least that would serve it. */
function WhyOpen({ row }: { readonly row: InletRow }) {
  const { view, shop, inletLabel } = useDesk();
  const { cabling, chosen } = view;
  const because = useMemo(() => {
    if (cabling.plan === null || cabling.kit === null || chosen === null) return null;
    const { choosing } = shop.settings;
    return (
      explainOpen(
        cabling.kit,
        cabling.inlets,
        cabling.rules,
        cabling.plan,
        {
          spares: choosing.spareCables ? [] : sparesFor(shop.bags, chosen.id),
          adapters: choosing.adapters ? [] : allowedAdapters(shop.bags),
        },
        row.inletId,
      )[0] ?? null
    );
  }, [cabling, chosen, shop, row.inletId]);
  const pieceName = (id: string) => {
    const bag =
      shop.bags.cables.find((cable) => cable.id === (spareId(id) ?? id)) ??
      shop.bags.adapters.find((adapter) => adapter.id === id);
    const own = chosen?.kit.cables.find((cable) => cable.id === id);
    return bag?.label ?? (own === undefined ? id : kitCableText(own));
  };
  const told =
    because === null
      ? null
      : openBecauseText(because, (id) => cabling.inlets.find((inlet) => inlet.id === id)!.kind, inletLabel, pieceName);
  const probe = chosen === null ? [] : sparesToProbe(shop.bags, chosen.id, (plug) => plugServes(plug, row.kind));
  return (
    <div data-why-open>
      {told !== null && (
        <>
          <p className="error-text">{told.why}</p>
          <p>{told.remedy}</p>
        </>
      )}
      {probe.length > 0 && (
        <p>
          In the bags:{' '}
          {probe.slice(0, 3).map((cable, index) => (
            <span key={cable.id}>
              {index > 0 ? ', ' : ''}
              <Link to={`/cable-bags?on=${chosen!.id}&cable=${cable.id}`}>{cable.label}</Link>
            </span>
          ))}{' '}
          {probe.length === 1 ? 'has' : 'have'} such a plug, not proved on this supply. Probe it first.
        </p>
      )}
      {row.kind === 'main-own' && <p>{ownPlugText(row.label)}</p>}
      <p className="quiet">
        {row.optional
          ? 'Ordinary use does without it. Sign it off at Hand over, or find a cable.'
          : 'Nothing may be closed over it without a signed reason.'}
      </p>
    </div>
  );
}
