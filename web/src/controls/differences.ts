export type Plain = Readonly<Record<string, unknown>>;
/**
 * What is not content: who and when stand beside, versions say nothing to people, and what was known at a choice goes
 * with what was chosen.
 */
const aside = new Set(['id', 'version', 'by', 'at', 'fieldRevisions', 'rechecked', 'facts', 'known']);

export const isPlain = (value: unknown): value is Plain =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

export interface FieldOfTwo {
  readonly path: string;
  readonly mine: unknown;
  readonly theirs: unknown;
}

/** Fields that two states of one thing hold differently, down to single figures. */
export function differences(mine: Plain | null, theirs: Plain | null, prefix = ''): FieldOfTwo[] {
  const keys = [...new Set([...Object.keys(mine ?? {}), ...Object.keys(theirs ?? {})])].filter(
    (key) => !aside.has(key),
  );
  return keys.flatMap((key): FieldOfTwo[] => {
    const [left, right] = [mine?.[key], theirs?.[key]];
    const path = prefix === '' ? key : `${prefix}.${key}`;
    if (isPlain(left) && isPlain(right)) return differences(left, right, path);
    return JSON.stringify(left ?? null) === JSON.stringify(right ?? null) ? [] : [{ path, mine: left, theirs: right }];
  });
}
