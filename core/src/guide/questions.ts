import type { Connector, Looks } from './connector.ts';

export type Feature = keyof Looks;
export type Seen = { readonly [F in Feature]?: Looks[F] | undefined };

/** A question about what one sees, with the answers that still lead somewhere. */
export interface Question {
  readonly feature: Feature;
  readonly answers: readonly NonNullable<Looks[Feature]>[];
}

/** Asked in this order where two tell as much. */
const features: readonly Feature[] = ['look', 'mains', 'pins', 'splits', 'rows', 'gap', 'key', 'twelve'];

/** Connectors that what was seen does not rule out. One that has nothing to say of a feature stays. */
export function matching(connectors: readonly Connector[], seen: Seen): readonly Connector[] {
  return connectors.filter(({ looks }) =>
    features.every((feature) => {
      const wanted = seen[feature];
      const has = looks[feature];
      return wanted === undefined || has === undefined || has === null || has === wanted;
    }),
  );
}

const valuesOf = (connectors: readonly Connector[], feature: Feature) => [
  ...new Set(connectors.map(({ looks }) => looks[feature]).filter((value) => value != null)),
];

/**
 * What is seen at a glance goes first, then the question that leaves the fewest connectors in the mean, what was seen
 * taken as true; null when none tells more.
 * @param passed features that nobody could see
 */
export function nextQuestion(
  connectors: readonly Connector[],
  seen: Seen,
  passed: readonly Feature[] = [],
): Question | null {
  const left = matching(connectors, seen);
  let best: { readonly question: Question; readonly leaves: number } | null = null;
  for (const feature of features) {
    if (seen[feature] !== undefined || passed.includes(feature)) continue;
    const values = valuesOf(left, feature);
    if (values.length < 2) continue;
    const sizes = left.map(({ looks }) => {
      const own = looks[feature];
      return own == null ? left.length : matching(left, { [feature]: own }).length;
    });
    const leaves = sizes.reduce((sum, size) => sum + size, 0) / left.length;
    const question = { feature, answers: values };
    if (feature === 'look') return question;
    if (leaves < left.length && (best === null || leaves < best.leaves - 1e-9)) best = { question, leaves };
  }
  return best?.question ?? null;
}
