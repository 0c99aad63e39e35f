/**
 * What is bound to be there by what was checked before: an inlet that an assignment of the same plan names, the first
 * of a list that is known not to be empty.
 * @param what its name, for whoever reads the error
 * @throws RangeError where it is not there after all: a slip of the program, never of a person
 */
export function boundToBe<T>(found: T | null | undefined, what: string): T {
  if (found === undefined || found === null) throw new RangeError(`there is no ${what}`);
  return found;
}
