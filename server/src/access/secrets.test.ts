import { describe, expect, it } from 'vitest';
import { asRead, hashSecret, isSecret, newToken, oneTimeCode, plainHash, sameHash } from './secrets.ts';

describe('a kept secret', () => {
  it('is told by itself alone, and never kept as it is', async () => {
    const kept = await hashSecret('482913');
    expect(kept).toMatch(/^scrypt\$15\$8\$1\$/);
    expect(kept).not.toContain('482913');
    expect(await isSecret('482913', kept)).toBe(true);
    expect(await isSecret('482914', kept)).toBe(false);
    expect(await isSecret('', kept)).toBe(false);
  });
  it('is kept otherwise each time, so that equal ones do not show', async () => {
    expect(await hashSecret('482913')).not.toBe(await hashSecret('482913'));
  });
  it('is the same however its letters are composed', async () => {
    expect(await isSecret('cafe\u0301 on the quay', await hashSecret('caf\u00e9 on the quay'))).toBe(true);
  });
  it('of another form is an error, not a wrong secret', async () => {
    await expect(isSecret('482913', '482913')).rejects.toThrow('no known form');
  });
});

describe('codes and tokens', () => {
  it('are read without taking one letter for another, and are not the same twice', () => {
    const codes = Array.from({ length: 200 }, oneTimeCode);
    expect(new Set(codes).size).toBe(200);
    for (const code of codes) expect(code).toMatch(/^[A-HJ-NP-Z2-9]{10}$/);
    expect(asRead('ABCDEFGHJK')).toBe('ABCDE-FGHJK');
  });
  it('are compared by their hash', () => {
    const token = newToken();
    expect(token).toHaveLength(43);
    expect(sameHash(plainHash(token), plainHash(token))).toBe(true);
    expect(sameHash(plainHash(token), plainHash(newToken()))).toBe(false);
    expect(sameHash(plainHash(token), '')).toBe(false);
  });
});
