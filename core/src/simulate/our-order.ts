import {
  conclude,
  faultNamed,
  interlocksOf,
  safetyCheckId,
  firstCure,
  nextStep,
  posterior,
  provingFirst,
  rankChecks,
  rankFaults,
  triedCures,
  usualCaution,
  type Bench,
  type Caution,
  type Model,
} from '../diagnose/index.ts';
import type { Order } from './search.ts';

/** The order that Fair Watt offers, always followed. @param stopProbability as in the shop's settings */
export function ourOrder(model: Model, bench: Bench, stopProbability: number, caution: Caution = usualCaution): Order {
  const cureOf = (faultId: string) => faultNamed(model, faultId).cure.id;
  return (seen) => {
    const probabilities = posterior(model, seen);
    const conclusion = conclude(model, seen, rankFaults(model, probabilities), stopProbability);
    const interlocks = interlocksOf(model, seen);
    const step = nextStep(
      { model, observations: seen, probabilities, interlocks },
      provingFirst(model, rankChecks(model, seen, bench, interlocks), conclusion),
      conclusion,
      caution,
    );
    if (step.do === 'check') return step;
    if (step.do === 'make-safe') return { do: 'check', checkId: safetyCheckId(step.dangerId) };
    if (step.do === 'nothing') return { do: 'give-up' };
    const tried = triedCures(model, seen);
    const faultId = tried.has(cureOf(step.faultId)) ? firstCure(model, probabilities, tried, () => true) : step.faultId;
    return faultId === null ? { do: 'give-up' } : { do: 'cure', cureId: cureOf(faultId) };
  };
}

/** The same order, each state of knowledge thought about once. */
export function remembering(order: Order): Order {
  const known = new Map<string, ReturnType<Order>>();
  return (seen, drawn) => {
    const key = seen
      .map((observation) => `${observation.checkId}=${observation.outcomeId}`)
      .sort()
      .join();
    const found = known.get(key) ?? order(seen, drawn);
    known.set(key, found);
    return found;
  };
}
