import { useState } from 'react';
import { Button } from 'antd';
import { dayText, instrumentKindText, type Instrument, plainFigure } from '@fairwatt/core';
import { problemOf, useShopQuery } from '../app/api.ts';
import { useMay } from '../access/use-may.ts';
import { today } from '../controls/clock.ts';
import { Empty } from '../controls/empty.tsx';
import { Waiting } from '../controls/waiting.tsx';
import { looks, verdictLook } from '../looks/looks.ts';
import { InstrumentDialog } from './instrument-dialog.tsx';
import { NetworkInstruments } from './network-instruments.tsx';
import { ShelfImport } from './shelf-import.tsx';
import { Sheet } from '../controls/sheet.tsx';
import { signs } from '../controls/signs.tsx';

/** Until when an instrument's errors hold. */
function Calibrated({ until }: { readonly until: string | null }) {
  if (until === null) return 'never';
  if (until < today()) return <span className={verdictLook('tight')}>{dayText(until)}, overdue</span>;
  return <span className={verdictLook('pass')}>{dayText(until)}</span>;
}

function InstrumentSheet({
  instruments,
  mayChange,
  onChange,
}: {
  readonly instruments: readonly Instrument[];
  readonly mayChange: boolean;
  readonly onChange: (instrument: Instrument) => void;
}) {
  return (
    <Sheet
      rows={instruments}
      rowKey={(instrument) => instrument.id}
      columns={[
        {
          head: 'Instrument',
          cell: (instrument) => instrument.name,
          className: looks.strongly,
        },
        { head: 'Kind', cell: (instrument) => instrumentKindText[instrument.kind] },
        {
          head: 'Ranges and limit of error',
          cell: (instrument) =>
            instrument.ranges.map((range) => (
              <div key={range.fullScaleVolts} className={looks.fig}>
                to {plainFigure(range.fullScaleVolts)} V: {plainFigure(range.percent)} % + {plainFigure(range.counts)} ×{' '}
                {plainFigure(range.digitVolts)} V
              </div>
            )),
        },
        {
          head: 'Times',
          className: looks.fig,
          cell: (instrument) =>
            instrument.powerGoodErrorMilliseconds === null
              ? 'no'
              : `±${plainFigure(instrument.powerGoodErrorMilliseconds)} ms`,
        },
        {
          head: 'Ripple',
          className: looks.fig,
          cell: (instrument) =>
            instrument.rippleErrorMillivolts === null ? 'no' : `±${instrument.rippleErrorMillivolts} mV`,
        },
        {
          head: 'Calibrated until',
          cell: (instrument) => <Calibrated until={instrument.calibratedUntil} />,
        },
        { head: 'Whose', cell: (instrument) => (instrument.ownedBy === '' ? "the shop's" : instrument.ownedBy) },
        {
          head: <span className={looks.visuallyHidden}>Acts</span>,
          cell: (instrument) => (
            <Button
              icon={signs.change}
              type="link"
              disabled={!mayChange}
              aria-label={`Change ${instrument.name}`}
              onClick={() => onChange(instrument)}
            >
              change
            </Button>
          ),
        },
      ]}
    />
  );
}

/** The shop's meters and testers with the errors that every verdict counts in. */
export default function InstrumentsPage() {
  const shop = useShopQuery();
  const owner = useMay('own');
  const [open, setOpen] = useState<Instrument | 'new' | null>(null);
  return (
    <div className={looks.page}>
      <div className={looks.pageHead}>
        <h1>Instruments</h1>
        <span className={looks.quiet}>Every verdict counts in the error of the instrument that was used.</span>
        <ShelfImport />
      </div>
      {shop.isError && shop.data === undefined && <Empty title={problemOf(shop.error).title} />}
      {shop.isLoading && <Waiting>Fetching the instruments …</Waiting>}
      {shop.data?.instruments.length === 0 && (
        <Empty title="No instruments yet">Import a shop file; demo/shop.json shows how one looks.</Empty>
      )}
      {shop.data !== undefined && shop.data.instruments.length > 0 && (
        <InstrumentSheet instruments={shop.data.instruments} mayChange={owner} onChange={setOpen} />
      )}
      {shop.data !== undefined &&
        (owner ? (
          <Button icon={signs.add} className={looks.below} onClick={() => setOpen('new')}>
            Add a meter or tester
          </Button>
        ) : (
          <p className={looks.quiet}>
            An owner adds and changes instruments; the name at the top right says who works here.
          </p>
        ))}
      {open !== null && <InstrumentDialog was={open === 'new' ? null : open} onClose={() => setOpen(null)} />}
      {shop.data !== undefined && <NetworkInstruments shop={shop.data} />}
    </div>
  );
}
