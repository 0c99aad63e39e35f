import { execFile } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { newCommand } from '../tests/command.ts';

const root = fileURLToPath(new URL('..', import.meta.url));

/** Runs a benchmark to its end. Its figures mean nothing after so short a time, only that there are some. */
function run(name: string, args: readonly string[]): Promise<{ readonly out: string; readonly err: string }> {
  const program = ['--conditions=fairwatt-source', '--import', 'tsx', `bench/${name}.ts`, ...args];
  return new Promise((resolve) => {
    execFile(process.execPath, program, { cwd: root }, (_error, out, err) => resolve({ out, err }));
  });
}

// With its stand-in instruments, as whoever reads the guide starts it.
const command = newCommand();
let url: string;
beforeAll(async () => {
  url = await command.start();
});
afterAll(async () => {
  await command.end();
});

describe('each benchmark of the guide runs', () => {
  it.each([
    ['main', ['short'], 'view: everything that follows from a job'],
    ['diagnosis', ['2'], 'best fixed order'],
    ['measure', ['4'], 'All marks'],
    ['server', ['200', '40', '0.1'], '| a job |'],
    ['shops', ['2', '20', '3'], 'MB a shop'],
  ])('%s', async (name, args, last) => {
    const { out, err } = await run(name, args);
    expect(err).toBe('');
    expect(out).toContain(last);
    expect(out).not.toContain('NaN |');
  });
  it.each([
    ['acts', ['1'], '| station changed |'],
    ['log-in-browser', ['20000', '1'], 'longest'],
    ['live', ['0.05', '4'], 'MB'],
    ['label', ['2'], 'median and 95th'],
    ['fuzz', ['20'], '0 failures of the server'],
  ])('%s, on a running demo', async (name, args, last) => {
    const { out, err } = await run(name, [url, ...args]);
    expect(err).toBe('');
    expect(out).toContain(last);
  });
});
