import { leftBeside, type CableFamily, type LeftPiece, type PlugKind } from '../standards/index.ts';
import type { Assignment, CableKit } from '../cable/index.ts';
import type { Cabling } from './cabling.ts';

/** What of a plug is left over: all of it, or the piece that its inlet has no room for. */
export type FreePiece = 'plug' | LeftPiece;

/** Something that hangs free once all is plugged: it is named, so that it is tied up and found again. */
export interface FreeEnd {
  /** The code of its cable; null for a fixed cable that nothing of is used. */
  readonly cableCode: string | null;
  readonly family: CableFamily;
  readonly plugKind: PlugKind;
  readonly piece: FreePiece;
}

/** The pieces of a kit that are in the machine: fixed ones always, the others where a plug of them is used. */
function hanging(kit: CableKit, assignments: readonly Assignment[]) {
  return kit.cables.flatMap((cable) =>
    Array.from({ length: cable.count }, (_, copy) => ({
      cable,
      used: assignments.filter((one) => one.kitCableId === cable.id && one.copy === copy),
    })).filter(({ used }) => cable.fixed || used.length > 0),
  );
}

/**
 * Everything that hangs free in the plan of a supply: plugs that go nowhere, fixed cables that nothing of is used, and
 * the two, four or half of a plug that its inlet has no room for. Empty where there is no plan.
 */
export function freeEndsOf({ plan, kit, rows }: Pick<Cabling, 'plan' | 'kit' | 'rows'>): FreeEnd[] {
  if (plan === null || kit === null) return [];
  const kinds = new Map(rows.map((row) => [row.inletId, row.adapterId === null ? row.kind : null]));
  return hanging(kit, plan.assignments).flatMap(({ cable, used }) =>
    cable.plugs.flatMap(({ kind }, index): FreeEnd[] => {
      const end = { cableCode: used[0]?.cableCode ?? null, family: cable.family, plugKind: kind };
      const at = used.find(({ plugIndex }) => plugIndex === index);
      if (at === undefined) return [{ ...end, piece: 'plug' }];
      const inletKind = kinds.get(at.inletId) ?? null;
      const piece = inletKind === null ? null : leftBeside(kind, inletKind);
      return piece === null ? [] : [{ ...end, piece }];
    }),
  );
}
