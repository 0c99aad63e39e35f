import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { reloadOnce, type Reloading } from './chunks.ts';

const remembered = new Map<string, string>();
let isDenied = false;
const session = {
  getItem: (key: string) => remembered.get(key) ?? null,
  setItem: (key: string, value: string) => {
    if (!isDenied) remembered.set(key, value);
  },
};

beforeEach(() => {
  vi.stubGlobal('sessionStorage', session);
});
afterEach(() => {
  vi.unstubAllGlobals();
  remembered.clear();
  isDenied = false;
});

const reload = vi.fn();
const page = (changes: Partial<Reloading> = {}): Reloading => ({
  isThere: () => Promise.resolve(true),
  wouldLose: () => false,
  now: () => 1_000_000,
  reload,
  ...changes,
});

describe('a piece that does not come', () => {
  beforeEach(() => reload.mockClear());

  it('has the page loaded again where the server answers', async () => {
    expect(await reloadOnce(page())).toBe(true);
    expect(reload).toHaveBeenCalledOnce();
  });
  it('has it left alone while the server is away: it may have gone this very moment', async () => {
    expect(await reloadOnce(page({ isThere: () => Promise.resolve(false) }))).toBe(false);
    expect(await reloadOnce(page())).toBe(true);
    expect(reload).toHaveBeenCalledOnce();
  });
  it('has it left alone where something typed would be lost', async () => {
    let isSent = false;
    expect(await reloadOnce(page({ wouldLose: () => !isSent }))).toBe(false);
    isSent = true;
    expect(await reloadOnce(page({ wouldLose: () => !isSent }))).toBe(true);
  });
  it('has it loaded once, however many do not come at once, and again only after a while', async () => {
    await Promise.all([reloadOnce(page()), reloadOnce(page()), reloadOnce(page())]);
    expect(await reloadOnce(page({ now: () => 1_019_999 }))).toBe(false);
    expect(reload).toHaveBeenCalledOnce();
    expect(await reloadOnce(page({ now: () => 1_020_001 }))).toBe(true);
  });
  it('has it left alone in a browser that would load it for ever', async () => {
    isDenied = true;
    expect(await reloadOnce(page())).toBe(false);
    expect(reload).not.toHaveBeenCalled();
  });
});
