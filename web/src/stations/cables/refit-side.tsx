import { useCallback, useState } from 'react';
import { Button } from 'antd';
import { Link } from 'react-router';
import {
  adapterNote,
  breachText,
  cableFiguresText,
  carriesOpposite,
  endsNamed,
  figuresOf,
  inletCaution,
  nextStage,
  openInletText,
  seatCheckText,
  spareId,
  type CableKit,
  type InletRow,
} from '@fairwatt/core';
import { clockTime } from '../../controls/clock.ts';
import { Primary } from '../../controls/fields.tsx';
import { Spoken } from '../../controls/spoken.tsx';
import { ConnectorFace } from '../../drawings/connector-face.tsx';
import { useDesk } from '../../job/job-context.ts';
import { looks } from '../../looks/looks.ts';
import type { OpenWay } from './cables.tsx';
import { MovePlug } from './move-plug.tsx';
import type { Seating } from './use-seating.ts';
import { WhyOpen } from './why-open.tsx';
import styles from './refit-view.module.css';

const withoutLatch: readonly InletRow['kind'][] = ['sata', 'peripheral-4', 'small-drive-4'];
const hasLatch = (kind: InletRow['kind']) => !withoutLatch.includes(kind);

/** The cable of an inlet and its socket, or why it has none. */
function whereFrom(row: InletRow, kit: CableKit | null): string {
  const { cableCode, socketLabel, slackMillimetres, partName, openReason } = row;
  if (cableCode === null) return openInletText(partName, openReason);
  const sockets = socketLabel === null ? 0 : endsNamed(kit, socketLabel).length;
  return [
    `cable ${cableCode}`,
    ...(socketLabel === null ? [] : [`${sockets > 1 ? 'sockets' : 'socket'} ${socketLabel}`]),
    ...(slackMillimetres === null ? [] : [`${Math.round(slackMillimetres)} mm to spare`]),
  ].join(', ');
}

/** The connector that is looked at: where its plug comes from, its face, how it is seated, and what comes next. */
export function RefitSide({ seating, onWay }: { readonly seating: Seating; readonly onWay: OpenWay }) {
  const { view, locked } = useDesk();
  const { current } = seating;
  const [moving, setMoving] = useState(false);
  const stay = useCallback(() => setMoving(false), []);
  const planned = view.cabling.basis === 'plan';
  return (
    <aside className={looks.side} aria-label="Now at">
      <div className={styles.nowHead}>
        <span className={looks.label}>Now at</span>
        {planned && !moving && (
          <Button
            type="link"
            data-letter="m"
            disabled={locked}
            onClick={() => {
              seating.pick(current.inletId);
              setMoving(true);
            }}
          >
            {current.pinned ? 'move or give back' : 'use another plug'}{' '}
            <kbd className={looks.single} aria-hidden="true">
              m
            </kbd>
          </Button>
        )}
      </div>
      <WhereFrom row={current} />
      {moving && planned ? (
        <MovePlug row={current} onDone={stay} />
      ) : (
        <>
          <Connector row={current} />
          <Ticks seating={seating} />
          <OpenElsewhere row={current} />
          <NextAct seating={seating} onWay={onWay} />
        </>
      )}
    </aside>
  );
}

/** Which cable comes to it, from where and through what, and what it carries. */
function WhereFrom({ row }: { readonly row: InletRow }) {
  const { view, shop } = useDesk();
  const { cabling } = view;
  const figures = figuresOf(cabling).find((cable) => cable.code === row.cableCode);
  const spare = row.kitCableId === null ? null : spareId(row.kitCableId);
  return (
    <div>
      <Spoken>{`${row.label}, ${whereFrom(row, cabling.kit)}`}</Spoken>
      <div className={looks.decides}>{row.label}</div>
      <div className={looks.quiet}>{whereFrom(row, cabling.kit)}</div>
      {spare !== null && (
        <div className={looks.quiet}>
          from the bags: <strong>{shop.bags.cables.find((cable) => cable.id === spare)?.label}</strong>
        </div>
      )}
      {cabling.basis === 'record' && row.kitCableId !== null && spare === null && (
        <div className={looks.quiet}>not recorded so far: from this supply's own kit, {row.kitCableId}</div>
      )}
      {row.adapterId !== null && <AdapterLine row={row} />}
      {figures !== undefined && (
        <div className={looks.quiet} data-figures>
          {cableFiguresText(figures)}
        </div>
      )}
    </div>
  );
}

function AdapterLine({ row }: { readonly row: InletRow }) {
  const { shop } = useDesk();
  const adapter = shop.bags.adapters.find((item) => item.id === row.adapterId);
  return (
    <div className={looks.quiet}>
      through <strong>{adapter?.label ?? row.adapterId}</strong>
      {adapter === undefined ? '' : `: ${adapterNote(adapter)}`}
      {row.legs.length > 0 ? `; also ${row.legs.map((leg) => leg.cableCode).join(', ')}` : ''}
    </div>
  );
}

/** Its face, with the caution that belongs to it and what is wrong with it. */
function Connector({ row }: { readonly row: InletRow }) {
  const { job, inletLabel } = useDesk();
  const caution = inletCaution(row.kind);
  return (
    <>
      <figure>
        <ConnectorFace kind={row.kind} width={292} />
        <figcaption className={looks.quiet}>
          {hasLatch(row.kind) ? 'wire side, latch up' : 'wire side'} ·{' '}
          <Link to={`/guide?show=${row.kind}&job=${job.code}`}>what is this?</Link>
        </figcaption>
      </figure>
      {caution !== null && (
        <p className={looks.caution}>
          <span>{caution}</span>
        </p>
      )}
      {row.state === 'open' && <WhyOpen row={row} />}
      {row.state === 'wrong' && (
        <p className={looks.errorText}>
          <strong>Wrong plug.</strong>{' '}
          {row.plugKind !== null && carriesOpposite(row.plugKind, row.kind)
            ? 'It carries +12 V where ground belongs and burns what it is in. '
            : ''}
          Take it out before the lead goes in. Move it, or leave it to the plan.
        </p>
      )}
      {row.breaches.map((breach) => (
        <p key={JSON.stringify(breach)} className={looks.errorText}>
          {breachText(breach, inletLabel)}
        </p>
      ))}
      {row.state === 'stays' && (
        <p className={looks.quiet}>It stays in, as recorded. Tick it where it was out all the same.</p>
      )}
    </>
  );
}

/** What it is looked at for, each with its digit, and who looked. */
function Ticks({ seating: { current, checks, toggle } }: { readonly seating: Seating }) {
  const { locked, personName } = useDesk();
  const { state, seat } = current;
  return (
    <>
      {(state === 'to-seat' || state === 'seated' || state === 'stays') && (
        <div className={styles.seatKeys} role="group" aria-label="Seated when">
          {checks.map((check, index) => {
            const on = seat?.[check] === true;
            return (
              <Button
                type="text"
                className={looks.key}
                key={check}
                data-key={index + 1}
                aria-pressed={on}
                disabled={locked}
                onClick={() => toggle(check)}
              >
                <span className={looks.digit} aria-hidden="true">
                  {on ? '✓' : index + 1}
                </span>
                <span>{seatCheckText(check)}</span>
              </Button>
            );
          })}
        </div>
      )}
      {seat !== null && state === 'seated' && (
        <p className={looks.quiet}>
          {personName(seat.by)}, {clockTime(seat.at)}
          {seat.rechecked === null ? '' : `; looked at again ${clockTime(seat.rechecked.at)}`}
        </p>
      )}
    </>
  );
}

/** The inlets without a cable, told at every other one. */
function OpenElsewhere({ row }: { readonly row: InletRow }) {
  const { view } = useDesk();
  const open = view.cabling.rows.filter(({ state }) => state === 'open');
  if (open.length === 0 || row.state === 'open') return null;
  return (
    <p className={looks.errorText}>
      <strong>{open.length} open:</strong> {open.map((one) => openInletText(one.label, one.openReason)).join('; ')}.
    </p>
  );
}

/** The next tick, the next connector, the look at all of them, or the next station. */
function NextAct({ seating, onWay }: { readonly seating: Seating; readonly onWay: OpenWay }) {
  const { job, view, act, locked, goTo } = useDesk();
  const { current, checks, toSeat, seated, after, seat, pick } = seating;
  const nextCheck = checks.find((check) => current.seat?.[check] !== true);
  if (current.state === 'to-seat' && nextCheck !== undefined)
    return (
      <>
        {checks.length > 1 && (
          <Button
            type="link"
            data-letter="a"
            className={styles.all ?? ''}
            disabled={locked}
            onClick={() => seat(Object.fromEntries(checks.map((check) => [check, true])))}
          >
            All {checks.length} of these hold{' '}
            <kbd className={looks.single} aria-hidden="true">
              a
            </kbd>
          </Button>
        )}
        <Primary disabled={locked} onClick={() => seat({ [nextCheck]: true })}>
          Yes: {seatCheckText(nextCheck)}
        </Primary>
      </>
    );
  const next = after ?? toSeat[0];
  if (next !== undefined) return <Primary onClick={() => pick(next.inletId)}>Next: {next.label}</Primary>;
  if (seated.some((row) => row.seat?.rechecked == null))
    return (
      <Primary
        disabled={locked}
        onClick={() => act({ kind: 'recheck-seats', inletIds: seated.map((row) => row.inletId) })}
      >
        Tied, and all {seated.length} looked at again
      </Primary>
    );
  if (nextStage(job, view.openPoints) === 'refit')
    return <Primary onClick={() => onWay('refit')}>Steps of the refit</Primary>;
  const replaced = job.choice?.kind === 'replace';
  return (
    <Primary onClick={() => goTo(replaced ? 'measure' : 'hand-over')}>
      {replaced ? 'Prove it: measure' : 'Hand over'}
    </Primary>
  );
}
