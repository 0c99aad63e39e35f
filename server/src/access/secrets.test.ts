import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import {
  asRead,
  hashCode,
  isCode,
  newSecretsKey,
  newToken,
  oneTimeCode,
  plainHash,
  Secrets,
  secretsBy,
} from './secrets.ts';

const keyOf = (text: string) => Buffer.from(text.padEnd(32, '.'));
const plain = new Secrets(null);
const keyed = new Secrets(keyOf('one'));
/** Whether a kept secret fits a pattern of SQL's LIKE that ends with its one wildcard. */
const fits = (kept: string, { readable }: Secrets) => readable.some((pattern) => kept.startsWith(pattern.slice(0, -1)));

describe('a kept secret', () => {
  it('is told by itself alone, and never kept as it is', async () => {
    const kept = await plain.hash('482913');
    expect(kept).toMatch(/^scrypt\$15\$8\$1\$/);
    expect(kept).not.toContain('482913');
    expect(await plain.is('482913', kept)).toBe(true);
    expect(await plain.is('482914', kept)).toBe(false);
    expect(await plain.is('', kept)).toBe(false);
  });
  it('is kept otherwise each time, so that equal ones do not show', async () => {
    expect(await plain.hash('482913')).not.toBe(await plain.hash('482913'));
  });
  it('is the same however its letters are composed', async () => {
    for (const secrets of [plain, keyed])
      expect(await secrets.is('cafe\u0301 on the quay', await secrets.hash('caf\u00e9 on the quay'))).toBe(true);
  });
  it('of another form is an error, not a wrong secret', async () => {
    await expect(plain.is('482913', '482913')).rejects.toThrow('no form that is known');
    await expect(plain.is('482913', 'scrypt$15$8$1$')).rejects.toThrow('no form that is known');
  });
});

describe('a secret that is kept by a key', () => {
  it('is told with that key alone: who has what is kept, and not the key, tries in vain', async () => {
    const kept = await keyed.hash('482913');
    expect(kept).toMatch(/^keyed-scrypt\$[0-9a-f]{16}\$15\$8\$1\$/);
    expect(await keyed.is('482913', kept)).toBe(true);
    expect(await keyed.is('482914', kept)).toBe(false);
    for (const other of [plain, new Secrets(keyOf('two'))]) {
      expect(fits(kept, other)).toBe(false);
      await expect(other.is('482913', kept)).rejects.toThrow('no form that is known');
    }
    // Not even by taking the key's name off.
    expect(await plain.is('482913', kept.replace(/^keyed-scrypt\$[0-9a-f]+/, 'scrypt'))).toBe(false);
    expect(fits(kept, keyed)).toBe(true);
  });
  it('from before there was one is still told, and is to be kept anew', async () => {
    const old = await plain.hash('482913');
    expect([fits(old, keyed), await keyed.is('482913', old), keyed.isOld(old)]).toEqual([true, true, true]);
    expect(keyed.isOld(await keyed.hash('482913'))).toBe(false);
    expect(plain.isOld(old)).toBe(false);
  });
  it('has its key from a file, which holds one or is refused in words', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'fairwatt-key-'));
    const path = join(folder, 'secrets.key');
    await expect(secretsBy(path)).rejects.toThrow('cannot be read');
    writeFileSync(path, 'c2hvcnQ=');
    await expect(secretsBy(path)).rejects.toThrow('32 bytes');
    writeFileSync(path, `${newSecretsKey()}\n`);
    const [first, again] = [await secretsBy(path), await secretsBy(path)];
    expect(await again.is('482913', await first.hash('482913'))).toBe(true);
    expect((await secretsBy('')).readable).toEqual(plain.readable);
    expect(() => new Secrets(Buffer.alloc(31))).toThrow('32 bytes');
    rmSync(folder, { recursive: true });
  });
});

describe('codes and tokens', () => {
  it('are read without taking one letter for another, and are not the same twice', () => {
    const codes = Array.from({ length: 200 }, oneTimeCode);
    expect(new Set(codes).size).toBe(200);
    for (const code of codes) expect(code).toMatch(/^[A-HJ-NP-Z2-9]{10}$/);
    expect(asRead('ABCDEFGHJK')).toBe('ABCDE-FGHJK');
  });
  it('are kept by their hash alone, a short one salted', async () => {
    const token = newToken();
    expect(token).toHaveLength(43);
    expect(plainHash(token)).toBe(plainHash(token));
    expect(plainHash(token)).not.toBe(plainHash(newToken()));
    const kept = await hashCode('ABCDEFGHJK');
    expect(kept).not.toBe(await hashCode('ABCDEFGHJK'));
    expect([await isCode('ABCDEFGHJK', kept), await isCode('ABCDEFGHJL', kept)]).toEqual([true, false]);
  });
});
