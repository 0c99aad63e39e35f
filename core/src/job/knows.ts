import { boardSensorId } from '../measure/index.ts';
import type { ActContext } from './act.ts';
import type { Shop } from './shop.ts';

/** What a shop knows, for whoever asks whether an act names something real. */
export function knowsOf(shop: Pick<Shop, 'instruments' | 'supplies' | 'model'>): ActContext['knows'] {
  return {
    instrument: (id) => id === boardSensorId || shop.instruments.some((item) => item.id === id),
    supply: (id) => shop.supplies.some((item) => item.id === id),
    fault: (id) => shop.model.faults.some((fault) => fault.id === id),
    outcome: (checkId, outcomeId) =>
      outcomeId === 'unknown'
        ? shop.model.checkIndex.has(checkId)
        : shop.model.checks.some(
            (check) => check.id === checkId && check.outcomes.some((outcome) => outcome.id === outcomeId),
          ),
  };
}
