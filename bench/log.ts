import { readLog, type LogMapping } from '@fairwatt/core';
import { normal, seeded } from '@fairwatt/core/simulate';
import Papa from 'papaparse';

const rows = 1_000_000;
const mapping: LogMapping = { columns: [{ holds: 'time', format: 'iso' }, { holds: 'rail', rail: '+12', unit: 'V' }, { holds: 'rail', rail: '+5', unit: 'V' }, { holds: 'rail', rail: '+3.3', unit: 'V' }], decimal: '.', headerRows: 1 };

function text(): string {
  const random = seeded(64);
  const lines = ['time,12V,5V,3.3V'];
  const start = Date.UTC(2026, 10, 24, 8);
  for (let row = 0; row < rows; row += 1) lines.push(`${new Date(start + row * 20).toISOString()},${(11.95 + 0.01 * normal(random) - (row % 250_000 === 9 ? 1 : 0)).toFixed(4)},${(5.02 + 0.003 * normal(random)).toFixed(4)},${(3.31 + 0.002 * normal(random)).toFixed(4)}`);
  return lines.join('\n');
}

/** A log of a million rows parsed and analysed, against the CSV library alone on the same text. */
export function timeLog(): { readonly alone: number; readonly whole: number; readonly dips: number } {
  const log = text();
  const time = (chunk: (list: string[][]) => void) => {
    const begun = performance.now();
    // The types know pieces of a file only; the library cuts a text as well.
    const pieces = { chunkSize: 512 * 1024, skipEmptyLines: true, chunk: (result: { data: string[][] }) => { chunk(result.data); } };
    Papa.parse<string[]>(log, pieces as object);
    return performance.now() - begun;
  };
  let dips = 0;
  const analysed = () => {
    const reader = readLog(mapping, '2.x');
    const spent = time((list) => { reader.push(list); });
    const result = reader.finish();
    if (!result.ok) throw new Error(JSON.stringify(result.problem));
    dips = result.summary.eventsInAll;
    return spent;
  };
  // Turn about, the best of three each: collecting the library's rows falls on whoever runs when it is due.
  time(() => undefined);
  const runs = [0, 1, 2].map(() => ({ alone: time(() => undefined), whole: analysed() }));
  return { alone: Math.min(...runs.map((run) => run.alone)), whole: Math.min(...runs.map((run) => run.whole)), dips };
}
