import { createHash } from 'node:crypto';
import type { CableKit, SupplyModel } from '@fairwatt/core';
import type { SupplyKits, SupplySummary } from '@fairwatt/contract';

/** Letters of a kit's name: 132 bits of its digest. */
const nameLength = 22;

/** The supplies of a shop as they travel, and their kits, each once. */
export interface Parted {
  readonly summaries: readonly SupplySummary[];
  readonly kits: SupplyKits;
}

/** The name that says what is in a kit. */
const kitNameOf = (kit: CableKit): string =>
  createHash('sha256').update(JSON.stringify(kit)).digest('base64url').slice(0, nameLength);

const parted = new WeakMap<readonly SupplyModel[], Parted>();

/** Parts supplies from their kits; once for a list, which is not changed meanwhile. */
export function partSupplies(supplies: readonly SupplyModel[]): Parted {
  const known = parted.get(supplies);
  if (known !== undefined) return known;
  const kits = new Map<string, CableKit>();
  const summaries = supplies.map(({ kit, ...rest }): SupplySummary => {
    const name = kitNameOf(kit);
    kits.set(name, kit);
    return { ...rest, kit: name };
  });
  const both = { summaries, kits: Object.fromEntries([...kits].sort(([a], [b]) => (a < b ? -1 : 1))) };
  parted.set(supplies, both);
  return both;
}
