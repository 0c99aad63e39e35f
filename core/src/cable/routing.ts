import { inletFamily, type CableFamily, type InletKind } from '../standards/index.ts';
import type { CaseLayout } from '../machine/index.ts';

/** Length of the way from the supply to an inlet in millimetres, by case layout (bench practice). */
const lengths: Record<CaseLayout, Record<CableFamily, number>> = {
  tower: { main: 450, cpu: 600, card: 500, 'card-16': 500, drive: 350 },
  small: { main: 300, cpu: 350, card: 300, 'card-16': 300, drive: 200 },
  slim: { main: 250, cpu: 250, card: 250, 'card-16': 250, drive: 150 },
};

/** The way to an inlet in a case of this layout, in millimetres. */
export function reachMillimetres(layout: CaseLayout, kind: InletKind): number {
  return lengths[layout][inletFamily(kind)];
}
