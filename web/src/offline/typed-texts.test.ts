import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';

/** A page of its own on the tab's store. */
async function freshPage() {
  vi.resetModules();
  return (await import('./typed-texts.ts')).typedTexts;
}

describe('texts that are not taken in yet', () => {
  const kept = new Map<string, string>();
  beforeEach(() => {
    vi.stubGlobal('sessionStorage', {
      getItem: (key: string) => kept.get(key) ?? null,
      setItem: (key: string, value: string) => kept.set(key, value),
      removeItem: (key: string) => kept.delete(key),
    });
  });
  afterEach(() => {
    kept.clear();
    vi.unstubAllGlobals();
  });

  it('are told wherever they are shown, and stand there again after a reload', async () => {
    const page = await freshPage();
    const heard = vi.fn();
    const leave = page.listen(heard);
    page.set('LQ-0001.note', 'smells of');
    expect(heard).toHaveBeenCalledTimes(1);
    leave();
    page.set('LQ-0001.note', 'smells of varnish');
    expect(heard).toHaveBeenCalledTimes(1);
    const reloaded = await freshPage();
    expect(reloaded.get('LQ-0001.note')).toBe('smells of varnish');
    expect(reloaded.get('LQ-0002.note')).toBe('');
  });
  it('leave nothing behind once they are taken in', async () => {
    const page = await freshPage();
    page.set('LQ-0001.note', 'smells of varnish');
    page.set('LQ-0001.note', '');
    expect(page.get('LQ-0001.note')).toBe('');
    expect(kept.size).toBe(0);
  });
  it('are kept while the page is open where the browser denies its store', async () => {
    vi.stubGlobal('sessionStorage', undefined);
    const page = await freshPage();
    page.set('LQ-0001.note', 'smells');
    expect(page.get('LQ-0001.note')).toBe('smells');
  });
});
