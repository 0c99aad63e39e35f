import type { Knowledge } from '../diagnose/index.ts';
import { normal, type Random } from './random.ts';

/**
 * A world in which the knowledge is wrong by a fair amount: every likelihood and every prior times a log-normal factor,
 * rows made to sum to 100 again.
 * @param deviation of the factor's natural logarithm: 0.5 is wrong by 1.6 times either way in a third of all figures
 */
export function disturbed(knowledge: Knowledge, deviation: number, random: Random): Knowledge {
  const shaken = (value: number) => value * Math.exp(deviation * normal(random));
  return {
    ...knowledge,
    faults: knowledge.faults.map((fault) => ({ ...fault, prior: shaken(fault.prior) })),
    // Each fault gets rows of its own, so that faults that shared one are wrong in different ways.
    checks: knowledge.checks.map((check) => {
      const named = new Set(check.rows.flatMap((row) => (row.faults === 'others' ? [] : row.faults)));
      const rest = knowledge.faults.map((fault) => fault.id).filter((id) => !named.has(id));
      return {
        ...check,
        rows: check.rows.flatMap((row) =>
          (row.faults === 'others' ? rest : row.faults).map((fault) => {
            const weights = row.weights.map(shaken);
            const sum = weights.reduce((total, weight) => total + weight, 0);
            return { faults: [fault], weights: weights.map((weight) => (weight * 100) / sum), why: row.why };
          }),
        ),
      };
    }),
  };
}
