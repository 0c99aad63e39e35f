/* oxlint-disable typescript/no-non-null-assertion --
   checks, outcomes and faults of a model are told by their number, which its own tables give */
/**
 * What the second, third ... outcome for one fault, or against it, counts of the one before it in an evidence group.
 */
export const groupDamping = 0.5;

/**
 * Outcomes of one evidence group tell the same story, so that each counts less than the one before: among those that
 * speak for a fault the strongest in full, the next half, the next a quarter; and so among those against it, apart.
 * Adding an outcome then moves the fault's score the way that outcome speaks, and never further than it would alone:
 * with weights that fall from 1 and values no larger behind it, what those behind lose is less than what it brings.
 * @param says what each outcome says of the fault, as logarithm of P(outcome | fault) over P(outcome)
 * @returns what each counts, 0 to 1, in the same order
 */
export function dampingOf(says: ArrayLike<number>, factor = groupDamping): number[] {
  return Array.from(says, (value, position) => {
    let before = 0;
    for (let other = 0; other < says.length; other += 1) {
      const sameWay = value < 0 === says[other]! < 0;
      const size = Math.abs(says[other]!) - Math.abs(value);
      if (other !== position && sameWay && (size > 0 || (size === 0 && other < position))) before += 1;
    }
    return factor ** before;
  });
}

/** `dampingOf` for every fault. @param group what each outcome of the group says, by fault; not empty */
export function dampingByFault(group: readonly Float64Array[]): Float64Array[] {
  const damping = group.map((says) => new Float64Array(says.length).fill(1));
  if (group.length === 1) return damping;
  for (let fault = 0; fault < group[0]!.length; fault += 1) {
    dampingOf(group.map((says) => says[fault]!)).forEach((weight, position) => {
      damping[position]![fault] = weight;
    });
  }
  return damping;
}

/** Two values of one group together: `dampingOf` for two, without its lists. */
function pairTogether(a: number, b: number): number {
  if (a < 0 !== b < 0) return a + b;
  return Math.abs(a) >= Math.abs(b) ? a + groupDamping * b : b + groupDamping * a;
}

/** What an evidence group says together, by fault: the sum over its outcomes, damped. */
export function saidTogether(group: readonly Float64Array[]): Float64Array {
  const [first, second] = group;
  if (group.length === 1) return first!;
  if (group.length === 2) return first!.map((value, fault) => pairTogether(value, second![fault]!));
  const damping = dampingByFault(group);
  return first!.map((_, fault) =>
    group.reduce((sum, says, position) => sum + damping[position]![fault]! * says[fault]!, 0),
  );
}
