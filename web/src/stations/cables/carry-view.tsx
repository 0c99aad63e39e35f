import type { ReactNode } from 'react';
import { Button } from 'antd';
import {
  casePlaces,
  figuresOf,
  inletsToServe,
  kitCableText,
  partsAt,
  placeText,
  reachMillimetres,
  sixteenPinStraightMillimetres,
  spareId,
  usualPlace,
  type CableFigures,
  type CasePlace,
} from '@fairwatt/core';
import { Empty } from '../../controls/empty.tsx';
import { FigureField, Primary, SelectField } from '../../controls/fields.tsx';
import { useDesk } from '../../job/job-context.ts';
import type { OpenWay } from './cables.tsx';
import { Sheet } from '../../controls/sheet.tsx';

const places = casePlaces.map((value) => ({ value, label: placeText[value] }));

/** A cable's own cells stand once, beside all of its plugs. */
const ofCable = ({ cable, index }: { readonly cable: CableFigures; readonly index: number }) => ({
  rowSpan: index === 0 ? cable.plugs.length : 0,
});

/** Which piece it is, where it comes from and what its fullest wire carries. */
function CarryKind({ cable }: { readonly cable: CableFigures }) {
  const { view, shop } = useDesk();
  const { plan, kit } = view.cabling;
  const planned = plan!.cables.find((item) => item.code === cable.code)!;
  const piece = kit!.cables.find((item) => item.id === planned.kitCableId)!;
  const spare = spareId(piece.id);
  const wires = cable.conductors === 1 ? 'one wire' : `each of ${cable.conductors} wires`;
  return (
    <>
      {spare === null
        ? kitCableText(piece)
        : `spare ${shop.bags.cables.find((item) => item.id === spare)?.label ?? ''}`}
      <span className="quiet block-note">
        {planned.socketLabel ?? 'fixed'} ·{' '}
        {cable.rail === null
          ? 'no lasting load'
          : `${cable.conductorAmps.toFixed(1)} of ${cable.mostAmps} A in ${wires}, ${cable.rail} V`}
      </span>
    </>
  );
}

/** What each planned cable carries, and where each inlet is: places and ways can be corrected. */
export function CarryView({ tabs, onWay }: { readonly tabs: ReactNode; readonly onWay: OpenWay }) {
  const { job, view, act, locked, inletLabel } = useDesk();
  const { cabling } = view;
  const figures = figuresOf(cabling);
  const parts = partsAt(job.parts, 'planned');
  const ways = new Map(
    inletsToServe(parts, job.sheet.layout, { staggered: job.sheet.staggeredStart }).map((inlet) => [inlet.id, inlet]),
  );
  const put = (
    partId: string,
    inletId: string,
    changes: { readonly place?: CasePlace | undefined; readonly wayMillimetres?: number | undefined },
  ) => {
    const part = job.parts.find((item) => item.id === partId)!;
    const { version, ...rest } = part;
    act({
      kind: 'put-part',
      basedOn: version,
      part: {
        ...rest,
        inlets: part.inlets.map((inlet) => (inlet.id === inletId ? clean({ ...inlet, ...changes }) : inlet)),
      },
    });
  };
  const lines = figures.flatMap((cable) => cable.plugs.map((plug, index) => ({ cable, plug, index })));
  const inlets = parts.flatMap((part) =>
    part.inlets.map((inlet) => ({ part, inlet, place: inlet.place ?? usualPlace(inlet.kind) })),
  );
  const hottest = figures
    .flatMap((cable) => cable.plugs.map((plug) => ({ ...plug, code: cable.code })))
    .sort((a, b) => b.plugHeatWatts - a.plugHeatWatts)[0];
  const fullest = [...figures].sort((a, b) => b.conductorAmps / b.mostAmps - a.conductorAmps / a.mostAmps)[0];
  return (
    <>
      <div className="work">
        {tabs}
        {figures.length === 0 ? (
          <Empty title="Nothing is planned yet">
            What a cable carries is known once a supply is chosen: the gauge of the present cables is not.
          </Empty>
        ) : (
          <Sheet
            label="What each cable carries"
            rows={lines}
            rowKey={({ cable, plug, index }) => `${cable.code}${plug.inletId}${index}`}
            columns={[
              {
                head: 'Cable',
                cell: ({ cable }) => <span className="tag small">{cable.code}</span>,
                cellProps: ofCable,
              },
              { head: 'Kind', cell: ({ cable }) => <CarryKind cable={cable} />, cellProps: ofCable },
              { head: 'Inlet', cell: ({ plug }) => inletLabel(plug.inletId) },
              {
                head: 'A a wire',
                className: 'num',
                cell: ({ plug }) => (plug.rail === null ? '-' : plug.conductorAmps.toFixed(1)),
              },
              {
                head: 'Lost on the way',
                className: 'num',
                cell: ({ plug }) => (plug.rail === null ? '-' : `${(plug.dropVolts * 1000).toFixed(0)} mV`),
              },
              {
                head: 'Heat in plug',
                className: 'num',
                cell: ({ plug }) => (plug.plugHeatWatts < 0.005 ? '-' : `${plug.plugHeatWatts.toFixed(2)} W`),
              },
              {
                head: 'To spare',
                className: 'num',
                cell: ({ plug }) => (
                  <span className={plug.slackMillimetres < 0 ? 'verdict fail' : ''}>
                    {Math.round(plug.slackMillimetres)} mm
                  </span>
                ),
              },
            ]}
          />
        )}
        <span className="label" style={{ display: 'block', marginTop: 20 }}>
          Where each inlet is, and how long the way to it from the supply
        </span>
        <Sheet
          label="Places and ways"
          rows={inlets}
          rowKey={({ inlet }) => inlet.id}
          columns={[
            { head: 'Inlet', cell: ({ inlet }) => inlet.label },
            {
              head: 'Place',
              width: 200,
              cell: ({ part, inlet, place }) => (
                <SelectField
                  bare
                  label={`Place of ${inlet.label}`}
                  value={place}
                  options={places}
                  disabled={locked}
                  onChange={(value) =>
                    put(part.id, inlet.id, { place: value === usualPlace(inlet.kind) ? undefined : value })
                  }
                />
              ),
            },
            {
              head: 'Way (mm)',
              width: 150,
              cell: ({ part, inlet, place }) => (
                <FigureField
                  bare
                  label={`Way to ${inlet.label} in millimetres`}
                  value={ways.get(inlet.id)?.reachMillimetres ?? null}
                  most={3000}
                  disabled={locked}
                  onChange={(value) => {
                    if (value !== null)
                      put(part.id, inlet.id, {
                        wayMillimetres:
                          value === reachMillimetres(job.sheet.layout, inlet.kind, place) ? undefined : value,
                      });
                  }}
                />
              ),
            },
            {
              head: 'Usual here',
              className: 'quiet',
              cell: ({ part, inlet, place }) => (
                <>
                  {reachMillimetres(job.sheet.layout, inlet.kind, place)} mm
                  {inlet.wayMillimetres !== undefined && (
                    <>
                      {' '}
                      ·{' '}
                      <Button
                        type="link"
                        disabled={locked}
                        aria-label={`Usual way to ${inlet.label}`}
                        onClick={() => put(part.id, inlet.id, { wayMillimetres: undefined })}
                      >
                        take the usual
                      </Button>
                    </>
                  )}
                </>
              ),
            },
          ]}
        />
      </div>
      <aside className="side" aria-label="What decides">
        <span className="label">Fullest wire</span>
        {fullest === undefined || fullest.rail === null ? (
          <div className="decides">Not known yet</div>
        ) : (
          <div className="decides">
            {fullest.conductorAmps.toFixed(1)} of {fullest.mostAmps} A
            <span className="quiet" style={{ display: 'block', fontSize: 15, fontWeight: 400 }}>
              {fullest.code}, {fullest.rail} V
            </span>
          </div>
        )}
        {hottest !== undefined && hottest.plugHeatWatts >= 0.005 && (
          <p>
            Hottest plug: {inletLabel(hottest.inletId)} on {hottest.code}, {hottest.plugHeatWatts.toFixed(2)} W in its
            contacts when they are as good as new. Twice the resistance is twice the heat.
          </p>
        )}
        <p className="quiet">
          By lasting load, drives as they spin up, wire at 40 °C, 5 mΩ a contact, out and back. A chain is taken as one
          wire for each voltage and two grounds.
        </p>
        {cabling.rows.some((row) => row.kind === 'card-16') && (
          <p className="caution">
            <span>
              16-pin: straight for {sixteenPinStraightMillimetres} mm from the plug; feel it after an hour at work.
            </span>
          </p>
        )}
        <Primary onClick={() => onWay('plan')}>Back to the plan</Primary>
      </aside>
    </>
  );
}

/** Without what was set back to its usual. */
function clean<T extends { readonly place?: CasePlace | undefined; readonly wayMillimetres?: number | undefined }>({
  place,
  wayMillimetres,
  ...rest
}: T): Omit<T, 'place' | 'wayMillimetres'> & { place?: CasePlace; wayMillimetres?: number } {
  return {
    ...rest,
    ...(place === undefined ? {} : { place }),
    ...(wayMillimetres === undefined ? {} : { wayMillimetres }),
  };
}
