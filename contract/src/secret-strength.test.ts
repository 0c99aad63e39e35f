import { describe, expect, it } from 'vitest';
import { newSecretSchema } from './access.ts';
import { strengthOf } from './secret-strength.ts';

describe('a passphrase', () => {
  it('that leaked elsewhere is guessed, however it is varied', () => {
    for (const secret of [
      'passwordpassword',
      'password1234',
      'Password1234',
      'p4ssw0rd1234',
      'qwertyuiop12',
      'iloveyou1234',
    ])
      expect(strengthOf(secret, []), secret).toBe('guessed');
  });
  it('that repeats one letter is guessed, however long', () => {
    expect(strengthOf('a'.repeat(200), [])).toBe('guessed');
    expect(strengthOf('abcabcabcabcabc', [])).toBe('guessed');
  });
  it('made of the names around is guessed', () => {
    expect(strengthOf('wilmaverhoeft', ['Wilma Verhoeft'])).toBe('guessed');
    expect(strengthOf('Verhoeft-wilma', ['Wilma Verhoeft'])).not.toBe('holds-well');
    expect(strengthOf('wilmawilmawilma', ['Wilma'])).toBe('guessed');
  });
  it('of a few words that stand together by chance holds', () => {
    for (const secret of ['gulls over the ferry', 'the gulls are loud today', 'tin cup under the pier'])
      expect(strengthOf(secret, ['Wilma']), secret).toBe('holds-well');
  });
});

describe('a PIN', () => {
  it('of the lists, or by a pattern, is guessed', () => {
    for (const secret of ['121212', '112233', '696969', '147258', '123654', '123123'])
      expect(strengthOf(secret, []), secret).toBe('guessed');
  });
  it('of its own holds, a date among them', () => {
    for (const secret of ['482913', '718293', '120934', '735190']) expect(strengthOf(secret, []), secret).toBe('holds');
  });
  it('is refused in few cases, so that one of chance is taken', () => {
    const refused = Array.from({ length: 100 }, (_, index) => String((index * 9_187 + 31) % 1_000_000).padStart(6, '0'))
      .filter((pin) => newSecretSchema.safeParse(pin).success)
      .filter((pin) => strengthOf(pin, []) === 'guessed');
    expect(refused.length).toBeLessThan(5);
  });
});
