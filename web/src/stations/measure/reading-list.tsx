import { codeText, conditionText, subjectText, type Phase } from '@fairwatt/core';
import { useDesk } from '../../job/job-context.ts';
import { clockTime } from '../../controls/clock.ts';

/** Every figure that was read, struck ones too, the newest first. */
export function ReadingList({ phase }: { readonly phase: Phase }) {
  const { job, shop, act, locked, personName, offerUndo } = useDesk();
  const readings = job.readings.filter((reading) => reading.phase === phase).slice().reverse();
  if (readings.length === 0) return null;
  return (
    <section aria-label="Readings" style={{ marginTop: 18 }}>
      <span className="label">Readings</span>
      <table className="grid">
        <thead><tr><th>Rail</th><th className="num">Figure</th><th>Load</th><th>Instrument</th><th>Who, when</th><th /></tr></thead>
        <tbody>{readings.map((reading) => (
          <tr key={reading.id} className={reading.struckAt === null ? '' : 'gone'}>
            <td>{subjectText[reading.subject]}</td>
            <td className="num">{reading.value.kind === 'code' ? codeText[reading.value.code] : `${reading.value.figure} ${reading.subject === 'power-good' ? 'ms' : 'V'}`}</td>
            <td>{conditionText[reading.condition]}{reading.loadWatts === null ? '' : `, ${reading.loadWatts} W`}</td>
            <td>{shop.instruments.find((item) => item.id === reading.instrumentId)?.name ?? reading.instrumentId}</td>
            <td className="quiet">{personName(reading.by)}, {clockTime(reading.at)}</td>
            <td>{reading.struckAt === null
              ? <button type="button" className="link" disabled={locked} aria-label={`Strike ${subjectText[reading.subject]}`} onClick={() => { if (act({ kind: 'strike-reading', id: reading.id }) === null) offerUndo('The reading is struck.', () => act({ kind: 'restore-reading', id: reading.id })); }}>strike</button>
              : <button type="button" className="link" disabled={locked} onClick={() => act({ kind: 'restore-reading', id: reading.id })}>restore</button>}</td>
          </tr>))}
        </tbody>
      </table>
    </section>
  );
}
