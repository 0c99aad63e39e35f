import fc, { type Arbitrary } from 'fast-check';
import { z } from 'zod';

interface Schema {
  readonly type?: string;
  readonly const?: unknown;
  readonly enum?: readonly unknown[];
  readonly anyOf?: readonly Schema[];
  readonly oneOf?: readonly Schema[];
  readonly properties?: Readonly<Record<string, Schema>>;
  readonly required?: readonly string[];
  readonly items?: Schema;
  /** Of a list of so many, what each is. */
  readonly prefixItems?: readonly Schema[];
  readonly propertyNames?: Schema;
  readonly additionalProperties?: Schema | boolean;
  readonly pattern?: string;
  readonly format?: string;
  readonly minimum?: number;
  readonly maximum?: number;
  readonly minLength?: number;
  readonly maxLength?: number;
  readonly minItems?: number;
  readonly maxItems?: number;
}

/** Values in the place of good ones that a careless or hostile sender would put there. */
export const hostile: Arbitrary<unknown> = fc.constantFrom<unknown>(
  null,
  '',
  '\u0000',
  'a\u0000b',
  '\ud800',
  '%00',
  '../../etc/passwd',
  "'; drop table job; --",
  '0000-01-01T00:00:00.000Z',
  '9999-99-99T99:99:99.999Z',
  'x'.repeat(5000),
  0,
  -1,
  1e308,
  2 ** 53,
  0.1,
  [],
  {},
  true,
  [[[[[[]]]]]],
);

function stringOf(schema: Schema): Arbitrary<string> {
  if (schema.format === 'uuid') return fc.uuid();
  if (schema.format === 'date-time')
    return fc.integer({ min: 0, max: 2e12 }).map((milliseconds) => new Date(milliseconds).toISOString());
  if (schema.pattern !== undefined) return fc.stringMatching(new RegExp(schema.pattern));
  return fc.string({
    minLength: schema.minLength ?? 1,
    maxLength: Math.min(schema.maxLength ?? 40, 60),
    unit: fc.constantFrom(...Array.from('abcdefghij XYZ0189-_.,äµ→𝛀')),
  });
}

function objectOf(schema: Schema): Arbitrary<unknown> {
  const entries = Object.entries(schema.properties ?? {}).map(([key, inner]) => [key, arbitraryOf(inner)] as const);
  if (entries.length === 0 && typeof schema.additionalProperties === 'object')
    return fc.dictionary(
      schema.propertyNames === undefined ? fc.string() : (arbitraryOf(schema.propertyNames) as Arbitrary<string>),
      arbitraryOf(schema.additionalProperties),
      { maxKeys: 4 },
    );
  return fc.record(Object.fromEntries(entries), { requiredKeys: [...(schema.required ?? [])] });
}

function arbitraryOf(schema: Schema): Arbitrary<unknown> {
  const choices = schema.anyOf ?? schema.oneOf;
  if (choices !== undefined) return fc.oneof(...choices.map(arbitraryOf));
  if ('const' in schema) return fc.constant(schema.const);
  if (schema.enum !== undefined) return fc.constantFrom(...schema.enum);
  switch (schema.type) {
    case 'string':
      return stringOf(schema);
    case 'integer':
      return fc.integer({ min: Math.max(schema.minimum ?? 0, -1e9), max: Math.min(schema.maximum ?? 1000, 1e9) });
    case 'number':
      return fc
        .double({ min: schema.minimum ?? -1000, max: Math.min(schema.maximum ?? 1000, 1e9), noNaN: true })
        .map((value) => Number(value.toFixed(3)));
    case 'boolean':
      return fc.boolean();
    case 'null':
      return fc.constant(null);
    case 'array':
      if (schema.prefixItems !== undefined) return fc.tuple(...schema.prefixItems.map(arbitraryOf));
      return fc.array(arbitraryOf(schema.items ?? {}), {
        minLength: schema.minItems ?? 0,
        maxLength: Math.min(schema.maxItems ?? 5, Math.max(schema.minItems ?? 0, 5)),
      });
    case 'object':
      return objectOf(schema);
    default:
      return fc.jsonValue();
  }
}

/** Values of the shape that a schema takes; finer rules of the schema may still refuse some. */
export const valuesOf = (schema: z.ZodType): Arbitrary<unknown> =>
  arbitraryOf(z.toJSONSchema(schema, { io: 'input', unrepresentable: 'any' }) as Schema);

/** Puts a hostile value somewhere into a value. */
export function spoiled(value: unknown, bad: unknown, at: number): unknown {
  if (Array.isArray(value) && value.length > 0) {
    const index = at % value.length;
    return value.map((item: unknown, position) => (position === index ? spoiled(item, bad, at >> 2) : item));
  }
  if (typeof value === 'object' && value !== null && Object.keys(value).length > 0 && at % 5 !== 0) {
    const keys = Object.keys(value);
    const key = keys[at % keys.length] ?? '';
    return { ...value, [key]: spoiled((value as Record<string, unknown>)[key], bad, at >> 3) };
  }
  return bad;
}
