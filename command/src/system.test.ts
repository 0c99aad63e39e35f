import { afterEach, expect, it, vi } from 'vitest';
import { run } from './system.ts';

const script = (code: string) => ['-e', code];
const told = () => vi.spyOn(process.stderr, 'write').mockImplementation(() => true).mock.calls;

afterEach(() => {
  vi.restoreAllMocks();
});

it('keeps to itself what a quiet program prints', async () => {
  const calls = told();
  await run(process.execPath, script('console.log("built"); console.error("in 2 s")'), { quiet: true });
  expect(calls).toEqual([]);
});

it('shows all that a quiet program printed once it fails, and fails as it did', async () => {
  const calls = told();
  const failing = run(
    process.execPath,
    script('console.log("reading"); console.error("no such file"); process.exit(3)'),
    {
      quiet: true,
    },
  );
  await expect(failing).rejects.toThrow('ended with 3');
  expect(calls.map(([text]) => String(text)).join('')).toMatch(/^(reading\nno such file|no such file\nreading)\n$/);
});

it('says that a program is not there', async () => {
  await expect(run('/no/such/program', [], { quiet: true })).rejects.toThrow('ENOENT');
});
