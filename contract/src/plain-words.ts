import { z } from 'zod';

type Issue = Parameters<z.core.$ZodErrorMap>[0];

const kindText: Readonly<Record<string, string>> = {
  number: 'must be a number',
  int: 'must be a whole number',
  string: 'must be text',
  boolean: 'must be yes or no',
  array: 'must be a list',
  object: 'must be an object',
};
/** Values that are named in full; of more, the first ones. */
const mostNamed = 12;

function named(values: readonly z.core.util.Primitive[]): string {
  const first = values.slice(0, mostNamed).map(String).join(', ');
  return values.length > mostNamed ? `${first}, …` : first;
}

const things = (count: number | bigint, origin: string): string => {
  if (origin === 'string') return `${count} ${count === 1 ? 'letter' : 'letters'}`;
  return origin === 'array' || origin === 'set' ? `${count} ${count === 1 ? 'entry' : 'entries'}` : String(count);
};

/** What is wrong with a value, as it reads behind its name; undefined for what has no words here. */
export function plainWords(issue: Issue): string | undefined {
  switch (issue.code) {
    case 'invalid_type':
      return issue.input === undefined ? 'is missing' : kindText[issue.expected];
    case 'too_small':
      if (issue.origin === 'string' && issue.minimum === 1) return 'must not be empty';
      return `${issue.inclusive === false ? 'more than' : 'at least'} ${things(issue.minimum, issue.origin)}`;
    case 'too_big':
      return `${issue.inclusive === false ? 'less than' : 'at most'} ${things(issue.maximum, issue.origin)}`;
    case 'invalid_value':
      return issue.values.length === 1 ? `must be ${named(issue.values)}` : `must be one of ${named(issue.values)}`;
    case 'unrecognized_keys':
      return `knows no ${issue.keys.join(', ')}`;
    default:
      return undefined;
  }
}

// All schemas of this contract speak so, wherever they are read.
z.config({ customError: plainWords });
