import { partClass, type MachinePart } from '../machine/index.ts';
import { inletFamily } from '../standards/index.ts';
import type { About } from './knowledge.ts';
import { restricted, type Model } from './model.ts';

/**
 * What a machine surely has not, by its parts: a card in a slot, a card with plugs of its own, a 16-pin inlet. Nothing
 * is ruled out before its board and its processor are entered, since parts that nobody entered yet may be there.
 */
export function absentIn(parts: readonly Pick<MachinePart, 'classId' | 'inlets'>[]): ReadonlySet<About> {
  const groups = new Set(parts.map(({ classId }) => partClass(classId)?.group));
  if (!groups.has('board') || !groups.has('processor')) return new Set();
  const inlets = parts.flatMap((part) => part.inlets.map(({ kind }) => kind));
  const has16 = inlets.includes('card-16');
  const there: Readonly<Record<About, boolean>> = {
    card: groups.has('card'),
    'card-plug': has16 || inlets.some((kind) => inletFamily(kind) === 'card'),
    'card-16': has16,
  };
  return new Set((Object.keys(there) as About[]).filter((about) => !there[about]));
}

const made = new WeakMap<Model, Map<string, Model>>();

/** The model as it holds for a machine of these parts: without faults and checks of what it has not. */
export function modelOf(model: Model, parts: readonly Pick<MachinePart, 'classId' | 'inlets'>[]): Model {
  const absent = absentIn(parts);
  if (absent.size === 0) return model;
  const known = made.get(model) ?? new Map<string, Model>();
  made.set(model, known);
  const key = [...absent].sort().join(' ');
  const found = known.get(key) ?? restricted(model, absent);
  known.set(key, found);
  return found;
}
