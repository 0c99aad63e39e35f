import { standingAt, subjectOf, type Act, type Job } from '@fairwatt/core';
import { differences, isPlain, type Plain } from '../controls/differences.ts';

/** Under which name an act that writes something as a whole carries it. */
const contentKeys: Readonly<Partial<Record<Act['kind'], string>>> = {
  'put-part': 'part',
  'put-supply': 'supply',
  'put-probe': 'probe',
  'put-log': 'log',
  'set-finding': 'finding',
  'set-choice': 'choice',
  'put-cable': 'cable',
  'put-lead': 'lead',
  'put-note': 'note',
  'put-pin': 'pin',
  'put-seat': 'seat',
};

/** What an act would write, as one object; null for one that takes away, or only adds. */
export function contentOf(act: Act): Plain | null {
  if (act.kind === 'edit-sheet') return act.changes;
  if (act.kind === 'order-steps') return { stepIds: act.stepIds };
  if (act.kind === 'note-outcome') return { outcomeId: act.outcomeId };
  if (act.kind === 'note-proof') return { holds: act.holds, note: act.note };
  const key = contentKeys[act.kind];
  const content = key === undefined ? null : (act as unknown as Plain)[key];
  return isPlain(content) ? content : null;
}

/** What stands on the server where an act would write; null where nothing does. */
export function standingContent(act: Act, theirs: Job): Plain | null {
  if (act.kind === 'note-outcome') {
    const standing = theirs.outcomes.findLast((item) => item.checkId === act.checkId && item.takenBackAt === null);
    return standing === undefined ? null : { outcomeId: standing.outcomeId };
  }
  const standing = standingAt(theirs, subjectOf(act)) as Plain | null;
  if (standing !== null && act.kind === 'note-proof') return { holds: standing['holds'], note: standing['note'] };
  if (standing === null || act.kind !== 'edit-sheet') return standing;
  return Object.fromEntries(Object.keys(act.changes).map((field) => [field, standing[field]]));
}

function put(into: Plain, path: readonly string[], value: unknown): Plain {
  const [key = '', ...rest] = path;
  const inner = into[key];
  return { ...into, [key]: rest.length === 0 ? value : put(isPlain(inner) ? inner : {}, rest, value) };
}

/** The act with some of its fields as the other person has them. */
export function withTheirs(act: Act, theirs: Job, paths: readonly string[]): Act {
  const standing = standingContent(act, theirs);
  const content = contentOf(act);
  if (content === null || standing === null) return act;
  const taken = differences(content, standing).filter((field) => paths.includes(field.path));
  const mixed = taken.reduce<Plain>((result, field) => put(result, field.path.split('.'), field.theirs), content);
  if (act.kind === 'edit-sheet') {
    // A field that is left as it stands is not written at all.
    const kept = Object.entries(act.changes).filter(([field]) => !paths.some((path) => path.split('.')[0] === field));
    return { ...act, changes: Object.fromEntries(kept) };
  }
  if (act.kind === 'set-choice' && act.choice !== null && (paths.includes('modelId') || paths.includes('kind')))
    // What was known goes with what was chosen.
    return {
      ...act,
      choice: { ...act.choice, ...mixed, facts: theirs.choice?.facts, known: theirs.choice?.known ?? [] },
    };
  if (act.kind === 'order-steps') return { ...act, stepIds: mixed['stepIds'] as readonly string[] };
  if (act.kind === 'note-proof') return { ...act, holds: mixed['holds'] as boolean, note: mixed['note'] as string };
  const key = contentKeys[act.kind];
  // Mixed from two values of the same shape, it has that shape.
  return key === undefined ? act : { ...act, [key]: mixed };
}
