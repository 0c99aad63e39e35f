import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import './plain-words.ts';

const told = (schema: z.ZodType, value: unknown) => schema.safeParse(value).error?.issues[0]?.message;

describe('what is wrong with a value', () => {
  it.each([
    [z.int(), 'two', 'must be a number'],
    [z.int(), 1.5, 'must be a whole number'],
    [z.number(), 'two', 'must be a number'],
    [z.int().min(1), 0, 'at least 1'],
    [z.int().max(99), 100, 'at most 99'],
    [z.number().gt(0), 0, 'more than 0'],
    [z.number().lt(5), 5, 'less than 5'],
    [z.string(), 5, 'must be text'],
    [z.string().min(1), '', 'must not be empty'],
    [z.string().min(3), 'ab', 'at least 3 letters'],
    [z.string().max(1), 'ab', 'at most 1 letter'],
    [z.array(z.int()).max(2), [1, 2, 3], 'at most 2 entries'],
    [z.enum(['ATX', 'SFX']), 'OVAL', 'must be one of ATX, SFX'],
    [z.literal(1), 2, 'must be 1'],
    [z.strictObject({ name: z.string() }), {}, 'is missing'],
    [z.strictObject({}), { colour: 1 }, 'knows no colour'],
    [z.boolean(), 'maybe', 'must be yes or no'],
  ])('is said plainly: %#', (schema, value, words) => {
    expect(told(schema, value)).toBe(words);
  });

  it('stays in the schema’s own words where it has some', () => {
    expect(told(z.int().min(1, 'at least one plug'), 0)).toBe('at least one plug');
  });

  it('names the first of many values', () => {
    const many = Array.from({ length: 30 }, (_, index) => `v${index}`);
    expect(told(z.enum(many), 'x')).toBe(`must be one of ${many.slice(0, 12).join(', ')}, …`);
  });
});
