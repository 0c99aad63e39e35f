import { partClass, type MachinePart, type PowerFigures } from './index.ts';

/** A part of a class, its inlets named after it from 0 on. */
export function machinePart(
  classId: string,
  id: string,
  figures: Partial<PowerFigures> = {},
  extra: Partial<MachinePart> = {},
): MachinePart {
  const found = partClass(classId);
  if (found === undefined) throw new Error(`no part class is called ${classId}`);
  return {
    id,
    classId,
    name: found.name,
    quantity: 1,
    change: 'stays',
    figures: { ...found.figures, ...figures },
    inlets: found.inlets.map((inlet, index) => ({ ...inlet, id: `${id}-${index}` })),
    ...extra,
  };
}
