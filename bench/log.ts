import { readLog, type LogMapping } from '@fairwatt/core';
import Papa from 'papaparse';
import { logText } from './log-rows.ts';

const rows = 1_000_000;
const mapping: LogMapping = {
  columns: [
    { holds: 'time', format: 'iso' },
    { holds: 'rail', rail: '+12', unit: 'V' },
    { holds: 'rail', rail: '+5', unit: 'V' },
    { holds: 'rail', rail: '+3.3', unit: 'V' },
  ],
  decimal: '.',
  headerRows: 1,
};

/** A log of a million rows parsed and analysed, against the CSV library alone on the same text. */
export function timeLog(): { readonly alone: number; readonly whole: number; readonly dips: number } {
  const log = logText(rows);
  const time = (chunk: (list: string[][]) => void) => {
    const begun = performance.now();
    // The types know pieces of a file only; the library cuts a text as well.
    const pieces = {
      chunkSize: 512 * 1024,
      skipEmptyLines: true,
      chunk: (result: { data: string[][] }) => {
        chunk(result.data);
      },
    };
    Papa.parse<string[]>(log, pieces as object);
    return performance.now() - begun;
  };
  let dips = 0;
  const analysed = () => {
    const reader = readLog(mapping, '2.x');
    const spent = time((list) => {
      reader.push(list);
    });
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
