import { standingAt, subjectOf, type Act, type Job } from '@fairwatt/core';
import { differences, isPlain, type Plain } from '../controls/differences.ts';

/** What an act would write, as one object; null for one that takes away, or only adds. */
export function contentOf(act: Act): Plain | null {
  switch (act.kind) {
    case 'edit-sheet':
      return act.changes;
    case 'put-part':
      return { ...act.part };
    case 'put-supply':
      return { ...act.supply };
    case 'put-probe':
      return { ...act.probe };
    case 'put-log':
      return { ...act.log };
    case 'set-finding':
      return act.finding === null ? null : { ...act.finding };
    case 'set-choice':
      return act.choice === null ? null : { ...act.choice };
    case 'put-cable':
      return { ...act.cable };
    case 'put-pin':
      return { ...act.pin };
    case 'put-seat':
      return { ...act.seat };
    case 'order-steps':
      return { stepIds: act.stepIds };
    case 'note-outcome':
      return { outcomeId: act.outcomeId };
    default:
      return null;
  }
}

/** What stands on the server where an act would write; null where nothing does. */
export function standingContent(act: Act, theirs: Job): Plain | null {
  if (act.kind === 'note-outcome') {
    const standing = theirs.outcomes.findLast((item) => item.checkId === act.checkId && item.takenBackAt === null);
    return standing === undefined ? null : { outcomeId: standing.outcomeId };
  }
  const standing = standingAt(theirs, subjectOf(act)) as Plain | null;
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
  switch (act.kind) {
    case 'edit-sheet': {
      // A field that is left as it stands is not written at all.
      const kept = Object.entries(act.changes).filter(([field]) => !paths.some((path) => path.split('.')[0] === field));
      return { ...act, changes: Object.fromEntries(kept) };
    }
    case 'put-part':
      return { ...act, part: mixed as unknown as typeof act.part };
    case 'put-supply':
      return { ...act, supply: mixed as unknown as typeof act.supply };
    case 'put-probe':
      return { ...act, probe: mixed as unknown as typeof act.probe };
    case 'put-log':
      return { ...act, log: mixed as unknown as typeof act.log };
    case 'set-finding':
      return { ...act, finding: mixed as unknown as typeof act.finding };
    case 'set-choice':
      return { ...act, choice: mixed as unknown as typeof act.choice };
    case 'put-cable':
      return { ...act, cable: mixed as unknown as typeof act.cable };
    case 'put-pin':
      return { ...act, pin: mixed as unknown as typeof act.pin };
    case 'put-seat':
      return { ...act, seat: mixed as unknown as typeof act.seat };
    case 'order-steps':
      return { ...act, stepIds: mixed['stepIds'] as readonly string[] };
    default:
      return act;
  }
}
