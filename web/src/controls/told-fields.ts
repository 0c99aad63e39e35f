/** Where a field stands in a draft: `['plugs', 0, 'ends']`. */
export type FieldPath = readonly (string | number)[];

/** What is wrong, and where in what was to be sent. */
export interface Finding {
  readonly path: FieldPath;
  readonly message: string;
}

interface Told {
  readonly fields: readonly { readonly name: FieldPath; readonly errors: readonly string[] }[];
  /** What belongs to no field that is shown. */
  readonly rest: readonly string[];
}

const holds = (field: FieldPath, path: FieldPath): boolean =>
  field.length <= path.length && field.every((step, index) => step === path[index]);

/** As it stands alone under a field: words of schemas go on behind a colon elsewhere. */
export const alone = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1);

/** A path of a problem document, `plugs.0.ends`, as steps. */
export const stepsOf = (path: string): FieldPath =>
  path === '' ? [] : path.split('.').map((step) => (/^\d+$/.test(step) ? Number(step) : step));

/** Tells each finding at the nearest field that holds it, the same words once. What none holds keeps its path. */
export function toldAtFields(findings: readonly Finding[], fields: readonly FieldPath[]): Told {
  const told = new Map<FieldPath, string[]>();
  const rest: string[] = [];
  for (const { path, message } of findings) {
    const nearest = fields.filter((field) => holds(field, path)).sort((a, b) => b.length - a.length)[0];
    if (nearest === undefined) rest.push(path.length === 0 ? alone(message) : `${path.join('.')}: ${message}`);
    else told.set(nearest, [...new Set([...(told.get(nearest) ?? []), alone(message)])]);
  }
  return { fields: [...told].map(([name, errors]) => ({ name, errors })), rest };
}

/** What stands at a path of a value; undefined for nothing. */
export function valueAt(value: unknown, path: FieldPath): unknown {
  let at = value;
  for (const step of path) {
    if (typeof at !== 'object' || at === null) return undefined;
    at = (at as Record<string | number, unknown>)[step];
  }
  return at;
}
