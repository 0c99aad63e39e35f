/* oxlint-disable typescript/no-non-null-assertion --
   values stand in rows of one length, gone through by number */
import { expose } from 'comlink';
import Papa from 'papaparse';
import {
  guessMapping,
  mostLogColumns,
  mostLogRows,
  readLog,
  type Guide,
  type LogMapping,
  type LogProblem,
  type LogShapeProblem,
  type LogSummary,
  type RailName,
} from '@fairwatt/core';

export type Separator = '' | ',' | ';' | '\t' | '|' | ' ';

/** The first rows of a file, and how they might be read. */
export type Look =
  | {
      readonly ok: true;
      readonly rows: readonly (readonly string[])[];
      readonly separator: string;
      readonly mapping: LogMapping;
      readonly problems: readonly LogShapeProblem[];
    }
  | { readonly ok: false; readonly problem: 'empty' | 'binary' | 'no-lines' | 'too-wide' };

export type ReadResult =
  | { readonly word: 'read'; readonly summary: LogSummary }
  | { readonly word: 'problem'; readonly problem: LogProblem }
  | { readonly word: 'cancelled' };

/** A part of the log, lowest and highest in equal pieces. */
export interface LogWindow {
  readonly seconds: Float64Array;
  readonly low: Float64Array;
  readonly high: Float64Array;
}

const lookBytes = 64 * 1024;
const lookRows = 60;
const pieceBytes = 1024 * 1024;

/** Every value of the log, for zooming and for writing it out again. */
class Kept {
  seconds = new Float64Array(4096);
  volts: Float64Array[];
  count = 0;
  readonly rails: readonly RailName[];
  constructor(rails: readonly RailName[]) {
    this.rails = rails;
    this.volts = rails.map(() => new Float64Array(4096));
  }
  add(at: number, values: Float64Array): void {
    if (this.count === this.seconds.length) {
      const grown = (list: Float64Array) => {
        const more = new Float64Array(Math.min(mostLogRows + 1, list.length * 2));
        more.set(list);
        return more;
      };
      this.seconds = grown(this.seconds);
      this.volts = this.volts.map(grown);
    }
    this.seconds[this.count] = at;
    for (let index = 0; index < values.length; index += 1) this.volts[index]![this.count] = values[index]!;
    this.count += 1;
  }
  /** First row at or after a time. */
  from(seconds: number): number {
    let low = 0;
    let high = this.count;
    while (low < high) {
      const middle = (low + high) >> 1;
      if (this.seconds[middle]! < seconds) low = middle + 1;
      else high = middle;
    }
    return low;
  }
}

let kept: Kept | null = null;
let cancelled = false;

const session = {
  /** Reads the head of a file and guesses. @param separator empty to guess it too */
  async look(file: File, separator: Separator): Promise<Look> {
    const bytes = new Uint8Array(await file.slice(0, lookBytes).arrayBuffer());
    if (bytes.length === 0) return { ok: false, problem: 'empty' };
    const odd = bytes.reduce(
      (sum, byte) => sum + Number(byte === 0 || (byte < 32 && byte !== 9 && byte !== 10 && byte !== 13)),
      0,
    );
    if (odd > bytes.length / 100) return { ok: false, problem: 'binary' };
    const text = new TextDecoder().decode(bytes);
    const cut = bytes.length === lookBytes ? text.slice(0, text.lastIndexOf('\n') + 1) || text : text;
    // One line as long as the head is no row, and would be ten thousand columns on the screen.
    if (bytes.length === lookBytes && !/[\r\n]/.test(text)) return { ok: false, problem: 'no-lines' };
    const parsed = Papa.parse<string[]>(cut, {
      delimiter: separator,
      preview: lookRows,
      skipEmptyLines: 'greedy',
      delimitersToGuess: [',', ';', '\t', '|', ' '],
    });
    if (parsed.data.some((row) => row.length > mostLogColumns)) return { ok: false, problem: 'too-wide' };
    const { mapping, problems } = guessMapping(parsed.data);
    return { ok: true, rows: parsed.data.slice(0, 12), separator: parsed.meta.delimiter, mapping, problems };
  },

  /** Reads the whole file in pieces, so that progress can be told and the reading be stopped. */
  read(
    file: File,
    separator: string,
    mapping: LogMapping,
    guide: Guide,
    progress: (share: number, rows: number) => void,
  ): Promise<ReadResult> {
    cancelled = false;
    const reader = readLog(mapping, guide, (seconds, values) => kept!.add(seconds, values));
    kept = new Kept(reader.rails);
    return new Promise((resolve, reject) => {
      let stopped: ReadResult | null = null;
      let told = 0;
      Papa.parse<string[]>(file, {
        delimiter: separator,
        skipEmptyLines: true,
        chunkSize: pieceBytes,
        chunk: ({ data, meta }, parser) => {
          if (cancelled) stopped = { word: 'cancelled' };
          else {
            const problem = reader.push(data);
            if (problem !== null) stopped = { word: 'problem', problem };
          }
          if (stopped !== null) {
            kept = null;
            parser.abort();
            return;
          }
          const now = performance.now();
          if (now - told > 100) {
            told = now;
            progress(meta.cursor / file.size, kept?.count ?? 0);
          }
        },
        complete: () => {
          if (stopped !== null) {
            resolve(stopped);
            return;
          }
          const result = reader.finish();
          if (!result.ok) kept = null;
          resolve(result.ok ? { word: 'read', summary: result.summary } : { word: 'problem', problem: result.problem });
        },
        error: reject,
      });
    });
  },

  cancel(): void {
    cancelled = true;
  },

  /** One rail between two times in at most so many pieces. Null when no log is read. */
  window(rail: RailName, from: number, to: number, pieces: number): LogWindow | null {
    const index = kept?.rails.indexOf(rail) ?? -1;
    if (kept === null || index < 0) return null;
    const first = Math.max(0, kept.from(from) - 1);
    const last = Math.min(kept.count, kept.from(to) + 1);
    const size = Math.max(1, Math.ceil((last - first) / pieces));
    const count = Math.ceil((last - first) / size);
    const found = { seconds: new Float64Array(count), low: new Float64Array(count), high: new Float64Array(count) };
    const volts = kept.volts[index]!;
    for (let piece = 0; piece < count; piece += 1) {
      const start = first + piece * size;
      let low = Infinity;
      let high = -Infinity;
      for (let row = start; row < Math.min(last, start + size); row += 1) {
        if (volts[row]! < low) low = volts[row]!;
        if (volts[row]! > high) high = volts[row]!;
      }
      found.seconds[piece] = kept.seconds[start]!;
      found.low[piece] = low;
      found.high[piece] = high;
    }
    return found;
  },

  /** Mean of each rail between two times, in volts; empty when nothing was logged there. */
  means(from: number, to: number): { rail: RailName; volts: number; count: number }[] {
    if (kept === null) return [];
    const first = kept.from(from);
    const last = kept.from(to + 1e-9);
    if (last <= first) return [];
    const { rails, volts } = kept;
    return rails.map((rail, index) => {
      let sum = 0;
      for (let row = first; row < last; row += 1) sum += volts[index]![row]!;
      return { rail, volts: sum / (last - first), count: last - first };
    });
  },

  /** The log in plain columns: seconds, then each rail in volts. */
  csv(from: number, to: number): Blob | null {
    if (kept === null) return null;
    const parts: string[] = [`seconds,${kept.rails.map((rail) => `${rail} V`).join(',')}\n`];
    let lines = '';
    const last = kept.from(to + 1e-9);
    for (let row = kept.from(from); row < last; row += 1) {
      const figures = [kept.seconds, ...kept.volts].map((list) => Number(list[row]!.toFixed(6)));
      lines += `${figures.join(',')}\n`;
      if (lines.length > 1 << 20) {
        parts.push(lines);
        lines = '';
      }
    }
    return new Blob([...parts, lines], { type: 'text/csv' });
  },
};

export type LogSession = typeof session;
expose(session);
