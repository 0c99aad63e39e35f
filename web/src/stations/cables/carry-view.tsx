import type { ReactNode } from 'react';
import {
  figureText,
  figuresOf,
  kitCableText,
  sixteenPinStraightMillimetres,
  spareId,
  type CableFigures,
  type PlugFigures,
} from '@fairwatt/core';
import { Empty } from '../../controls/empty.tsx';
import { Primary } from '../../controls/fields.tsx';
import { Sheet, type SheetColumn } from '../../controls/sheet.tsx';
import { useDesk } from '../../job/job-context.ts';
import { looks, verdictLook } from '../../looks/looks.ts';
import type { OpenWay } from './cables.tsx';
import { PlacesSheet } from './places-sheet.tsx';
import styles from './carry-view.module.css';

/** One plug of a planned cable. */
interface CarryLine {
  readonly cable: CableFigures;
  readonly plug: PlugFigures;
  readonly index: number;
}

/** A cable's own cells stand once, beside all of its plugs. */
const ofCable = ({ cable, index }: CarryLine) => ({ rowSpan: index === 0 ? cable.plugs.length : 0 });

/** Less heat than this in a plug is not worth a word, in watts. */
const leastHeatWatts = 0.005;

/** Which piece it is, where it comes from and what its fullest wire carries. */
function CarryKind({ cable }: { readonly cable: CableFigures }) {
  const { view, shop } = useDesk();
  const { plan, kit } = view.cabling;
  const planned = plan?.cables.find((item) => item.code === cable.code);
  const piece = kit?.cables.find((item) => item.id === planned?.kitCableId);
  if (planned === undefined || piece === undefined) return null;
  const spare = spareId(piece.id);
  const wires = cable.conductors === 1 ? 'one wire' : `each of ${cable.conductors} wires`;
  return (
    <>
      {spare === null
        ? kitCableText(piece)
        : `spare ${shop.bags.cables.find((item) => item.id === spare)?.label ?? ''}`}
      <span className={`${looks.quiet} ${looks.blockNote}`}>
        {planned.socketLabel ?? 'fixed'} ·{' '}
        {cable.rail === null
          ? 'no lasting load'
          : `${figureText(cable.conductorAmps, 1)} of ${cable.mostAmps} A in ${wires}, ${cable.rail} V`}
      </span>
    </>
  );
}

const figureColumns: readonly SheetColumn<CarryLine>[] = [
  {
    head: 'A a wire',
    className: looks.num,
    cell: ({ plug }) => (plug.rail === null ? '-' : figureText(plug.conductorAmps, 1)),
  },
  {
    head: 'Lost on the way',
    className: looks.num,
    cell: ({ plug }) => (plug.rail === null ? '-' : `${figureText(plug.dropVolts * 1000)} mV`),
  },
  {
    head: 'Heat in plug',
    className: looks.num,
    cell: ({ plug }) => (plug.plugHeatWatts < leastHeatWatts ? '-' : `${figureText(plug.plugHeatWatts, 2)} W`),
  },
  {
    head: 'To spare',
    className: looks.num,
    cell: ({ plug }) => (
      <span className={plug.slackMillimetres < 0 ? verdictLook('fail') : ''}>
        {Math.round(plug.slackMillimetres)} mm
      </span>
    ),
  },
];

function CarrySheet({ figures }: { readonly figures: readonly CableFigures[] }) {
  const { inletLabel } = useDesk();
  const lines = figures.flatMap((cable) => cable.plugs.map((plug, index) => ({ cable, plug, index })));
  return (
    <Sheet<CarryLine>
      label="What each cable carries"
      rows={lines}
      rowKey={({ cable, plug, index }) => `${cable.code}${plug.inletId}${index}`}
      columns={[
        {
          head: 'Cable',
          cell: ({ cable }) => <span className={`${looks.tag} ${looks.small}`}>{cable.code}</span>,
          cellProps: ofCable,
        },
        { head: 'Kind', cell: ({ cable }) => <CarryKind cable={cable} />, cellProps: ofCable },
        { head: 'Inlet', cell: ({ plug }) => inletLabel(plug.inletId) },
        ...figureColumns,
      ]}
    />
  );
}

/** The wire nearest to what it may carry, and the plug that becomes warmest. */
function CarryDecides({ figures }: { readonly figures: readonly CableFigures[] }) {
  const { view, inletLabel } = useDesk();
  const hottest = figures
    .flatMap((cable) => cable.plugs.map((plug) => ({ ...plug, code: cable.code })))
    .sort((a, b) => b.plugHeatWatts - a.plugHeatWatts)[0];
  const fullest = [...figures].sort((a, b) => b.conductorAmps / b.mostAmps - a.conductorAmps / a.mostAmps)[0];
  return (
    <>
      <span className={looks.label}>Fullest wire</span>
      {fullest === undefined || fullest.rail === null ? (
        <div className={looks.decides}>Not known yet</div>
      ) : (
        <div className={looks.decides}>
          {figureText(fullest.conductorAmps, 1)} of {fullest.mostAmps} A
          <span className={`${looks.quiet} ${styles.beside}`}>
            {fullest.code}, {fullest.rail} V
          </span>
        </div>
      )}
      {hottest !== undefined && hottest.plugHeatWatts >= leastHeatWatts && (
        <p>
          Hottest plug: {inletLabel(hottest.inletId)} on {hottest.code}, {figureText(hottest.plugHeatWatts, 2)} W in its
          contacts when they are as good as new. Twice the resistance is twice the heat.
        </p>
      )}
      <p className={looks.quiet}>
        By lasting load, drives as they spin up, wire at 40 °C, 5 mΩ a contact, out and back. A chain is taken as one
        wire for each voltage and two grounds.
      </p>
      {view.cabling.rows.some((row) => row.kind === 'card-16') && (
        <p className={looks.caution}>
          <span>
            16-pin: straight for {sixteenPinStraightMillimetres} mm from the plug; feel it after an hour at work.
          </span>
        </p>
      )}
    </>
  );
}

/** What each planned cable carries, and where each inlet is: places and ways can be corrected. */
export function CarryView({ tabs, onWay }: { readonly tabs: ReactNode; readonly onWay: OpenWay }) {
  const { view } = useDesk();
  const figures = figuresOf(view.cabling);
  return (
    <>
      <div className={looks.work}>
        {tabs}
        {figures.length === 0 ? (
          <Empty title="Nothing is planned yet">
            What a cable carries is known once a supply is chosen: the gauge of the present cables is not.
          </Empty>
        ) : (
          <CarrySheet figures={figures} />
        )}
        <span className={`${looks.label} ${looks.ownLine} ${looks.wellBelow}`}>
          Where each inlet is, and how long the way to it from the supply
        </span>
        <PlacesSheet />
      </div>
      <aside className={looks.side} aria-label="What decides">
        <CarryDecides figures={figures} />
        <Primary onClick={() => onWay('plan')}>Back to the plan</Primary>
      </aside>
    </>
  );
}
