import { describe, expect, it } from 'vitest';
import type { CableKit } from '@fairwatt/core';
import type { SupplySummary } from '@fairwatt/contract';
import { fetchOne, fetchWhole, withKits } from './whole-supplies.ts';

const summary = (id: string, kit: string) => ({ id, kit }) as SupplySummary;
const kit = (label: string): CableKit => ({ sockets: [{ label, kind: 'main' }], cables: [] });

/** A server that gives these answers in turn, each path its own. */
function server(answers: Readonly<Record<string, readonly unknown[]>>) {
  const asked: string[] = [];
  return {
    asked,
    get: async (path: string) => {
      const at = asked.filter((one) => one === path).length;
      asked.push(path);
      await Promise.resolve();
      const data = answers[path]?.[at];
      return data === undefined ? { error: `no ${path}` } : { data };
    },
  };
}

describe('supplies with their kits', () => {
  it('have the kit that their name says, one for all that share it', () => {
    const kits = { a: kit('A'), b: kit('B') };
    const whole = withKits([summary('one', 'a'), summary('two', 'b'), summary('three', 'a')], kits)!;
    expect(whole.map((model) => model.kit.sockets[0]!.label)).toEqual(['A', 'B', 'A']);
    expect(whole[2]!.kit).toBe(whole[0]!.kit);
  });
  it.each(['c', 'constructor', '__proto__'])('are none where a kit is not there: %s', (name) => {
    expect(withKits([summary('one', 'a'), summary('two', name)], { a: kit('A') })).toBeNull();
    expect(withKits([], {})).toEqual([]);
  });
});

describe('fetching them', () => {
  it('asks once more where a kit changed between the two answers', async () => {
    const { get, asked } = server({
      '/supplies': [[summary('one', 'a')], [summary('one', 'b')]],
      '/supplies/kits': [{ b: kit('B') }, { b: kit('B') }],
    });
    const answer = await fetchWhole(get, 'torn');
    expect(answer).toEqual({ data: [{ id: 'one', kit: kit('B') }] });
    expect(asked).toEqual(['/supplies', '/supplies/kits', '/supplies', '/supplies/kits']);
  });
  it('gives up where they never go together, as with two answers kept from different days', async () => {
    const kept = { '/supplies': Array(9).fill([summary('one', 'a')]), '/supplies/kits': Array(9).fill({}) };
    const { get, asked } = server(kept);
    expect(await fetchWhole(get, 'torn')).toEqual({ error: 'torn' });
    expect(asked).toHaveLength(6);
  });
  it.each(['/supplies', '/supplies/kits'])('tells what went wrong with %s', async (path) => {
    const answers = { '/supplies': [[summary('one', 'a')]], '/supplies/kits': [{ a: kit('A') }], [path]: [] };
    expect(await fetchWhole(server(answers).get, 'torn')).toEqual({ error: `no ${path}` });
  });
});

describe('fetching one', () => {
  const all = { '/supplies': [[summary('one', 'a')]], '/supplies/kits': [{ a: kit('A') }] };
  it('takes what the server says of it, and asks for no other', async () => {
    const { get, asked } = server({ '/supplies/models/one': [{ id: 'one', kit: kit('B') }], ...all });
    expect(await fetchOne('one', get, 'torn')).toEqual({ data: { id: 'one', kit: kit('B') } });
    expect(asked).toEqual(['/supplies/models/one']);
  });
  it('takes it out of all that were kept where the server is away', async () => {
    expect(await fetchOne('one', server(all).get, 'torn')).toEqual({ data: { id: 'one', kit: kit('A') } });
  });
  it('tells what went wrong with it where it is nowhere', async () => {
    expect(await fetchOne('two', server(all).get, 'torn')).toEqual({ error: 'no /supplies/models/two' });
    expect(await fetchOne('one', server({}).get, 'torn')).toEqual({ error: 'no /supplies/models/one' });
  });
});
