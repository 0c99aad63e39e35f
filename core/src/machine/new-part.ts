import type { Inlet, MachinePart, PowerFigures } from './part.ts';

/** What a new part is made from: a class, a part of the shop's own, or a part that is there already. */
export interface PartSource {
  readonly classId: string;
  readonly name: string;
  readonly figures: PowerFigures;
  readonly inlets: readonly Omit<Inlet, 'id'>[];
}

/** A name that none has yet: two parts or inlets of one name could not be told apart at the bench. */
function distinctName(wanted: string, taken: ReadonlySet<string>): string {
  let name = wanted;
  for (let count = 2; taken.has(name); count += 1) name = `${wanted} ${count}`;
  return name;
}

/**
 * New parts for a machine, each with a name and with inlet labels that no other part of it has.
 * @param present the parts that are there already
 * @param makeId an identifier for a part; its inlets' are made from it
 */
export function newParts(
  wanted: readonly { readonly source: PartSource; readonly quantity: number; readonly change: MachinePart['change'] }[],
  present: readonly MachinePart[],
  makeId: () => string,
): MachinePart[] {
  const names = new Set(present.map((part) => part.name));
  const labels = new Set(present.flatMap((part) => part.inlets.map((inlet) => inlet.label)));
  const taking = (name: string, taken: Set<string>): string => {
    const distinct = distinctName(name, taken);
    taken.add(distinct);
    return distinct;
  };
  return wanted.flatMap(({ source, quantity, change }) => {
    // A part with inlets is one of its own; others are counted.
    const each = source.inlets.length > 0 ? 1 : quantity;
    return Array.from({ length: quantity / each }, (): MachinePart => {
      const id = makeId();
      const inlets = source.inlets.map((inlet, index) => ({
        ...inlet,
        id: `${id}-${index + 1}`,
        label: taking(inlet.label, labels),
      }));
      return {
        id,
        classId: source.classId,
        name: taking(source.name, names),
        quantity: each,
        change,
        figures: source.figures,
        inlets,
      };
    });
  });
}

/**
 * A part's figures after some were given: low and high stay around the likely one, seconds never below lasting. Whoever
 * gives a figure knows more than the class; from where can be said beside it, a label until then.
 */
export function withFigures(before: PowerFigures, changes: Partial<PowerFigures>): PowerFigures {
  const next = { ...before, ...changes };
  const likely = next.likelyWatts;
  return {
    ...next,
    source: 'source' in changes || next.source !== 'class' ? next.source : 'label',
    lowWatts: Math.min(next.lowWatts, likely),
    highWatts: Math.max(next.highWatts, likely),
    shortWatts: Math.max(next.shortWatts, likely),
  };
}
