import { groupBy } from '../group-by.ts';
import type { FreeEnd, FreePiece, Step, StepPart, StepPhase } from '../job/index.ts';
import { inletFamily, type PlugKind } from '../standards/index.ts';
import { familyText, foundHarmText, inletCaution } from './cabling.ts';
import { counted } from './figures.ts';
import { leadCaution, leadText } from './leads.ts';
import { plugName } from './plugs.ts';

export const stepPhaseText: Record<StepPhase, string> = { 'take-out': 'Take out', refit: 'Refit' };

/** What to do at a step. */
export function stepText(step: Step): string {
  const inlet = step.inlet?.label ?? '';
  switch (step.kind) {
    case 'power-off':
      return 'Rocker off, lead out of the wall';
    case 'strap':
      return 'Press the button once to drain it, wait; wrist strap on';
    case 'two-people':
      return 'Lift it onto the bench with two people';
    case 'panel-off':
      return 'Side panels off, both sides where cables run behind the board';
    case 'cut-ties':
      return `Cut ${counted(step.count, 'tie')}`;
    case 'radiator-off':
      return 'Radiator or cooler aside, so that the processor plug can be reached';
    case 'unplug':
      return `Unplug ${inlet}${step.cable === null ? '' : `, cable ${step.cable}`}`;
    case 'lead-out':
      return `Lead off: ${leadText(step.lead)}`;
    case 'lead-back':
      return `Lead back: ${leadText(step.lead)}`;
    case 'part-out':
      return partOutText(step.part);
    case 'old-end':
      return `Cable ${step.cable ?? ''} out of the old supply's socket ${step.socket ?? ''}`;
    case 'bag-old':
      return `${counted(step.count, 'cable')} of the old supply into a bag labelled with its model`;
    case 'free-way':
      return `Cable ${step.cable ?? ''} out of ${step.way.join(', then ')}`;
    case 'tray-out':
      return 'Tray or sled out with the supply on it';
    case 'latch':
      return 'Press the release latch';
    case 'screws-out':
      return 'Four screws, the supply held with the other hand';
    case 'last-look':
      return 'Last look that no cable hangs in another, then lift it out';
    case 'mark-old':
      return 'Mark the old supply with what was found';
    case 'still-out':
      return 'Lead still out of the wall, wrist strap on';
    case 'bag-rest':
      return `${counted(step.count, 'cable')} into a bag labelled with the supply's model`;
    case 'supply-end':
      return `Cable ${step.cable ?? ''} into the supply's socket ${step.socket ?? ''}, until it clicks`;
    case 'fan-side':
      return 'Fan towards a vent with a filter if the bay has one, otherwise into the case';
    case 'screws-in':
      return 'All four screws started by hand, then tightened';
    case 'tray-in':
      return 'Tray or sled back until it stops';
    case 'part-in':
      return partInText(step.part);
    case 'lay-way':
      return `Way of the old cable ${step.cable ?? ''} again: ${step.way.join(', then ')}`;
    case 'plug':
      return `${inlet}${step.cable === null ? '' : `, cable ${step.cable}`}${
        step.through === null ? '' : `, through ${step.through}`
      }`;
    case 'radiator-on':
      return 'Radiator or cooler back';
    case 'tie-free':
      return `Tie up what hangs free: ${freeEndsText(step.free)}`;
    case 'tie':
      return 'Smaller cables under larger ones, few bundles, straps rather than ties';
    case 'note-ways':
      return 'Write down the way each cable was laid';
    case 'recheck':
      return 'Every connector once more, now that the cables are tied';
    case 'panel-on':
      return 'Side panel on without force';
    case 'rocker-on':
      return 'Rocker on before it is out of reach, lead in, first start';
  }
}

const partText = (part: StepPart | null): string =>
  part === null ? '' : part.quantity > 1 ? `${part.quantity} × ${part.name}` : part.name;

function partOutText(part: StepPart | null): string {
  const what = `Out of the machine: ${partText(part)}`;
  switch (part?.group) {
    case 'card':
      return `${what}; bracket screw out, slot latch pressed${part.riser ? ', riser off at both ends' : ''}`;
    case 'drive':
      return `${what}; data lead off, screws out`;
    case 'memory':
      return `${what}; both latches open`;
    case 'processor':
      return `${what}; cooler off first`;
    case 'board':
    case 'cooling':
    case 'other':
    case undefined:
      return what;
  }
}

function partInText(part: StepPart | null): string {
  const what = `Into the machine: ${partText(part)}`;
  switch (part?.group) {
    case 'card':
      return part.riser
        ? `${what}; both ends of the riser home, card's latch clicks, bracket screwed`
        : `${what}; slot latch clicks, bracket screwed`;
    case 'drive':
      return `${what}; screwed, data lead on`;
    case 'memory':
      return `${what}; both latches click`;
    case 'processor':
      return `${what}; corner marks in line, new paste, cooler on`;
    case 'board':
      return `${what}; on all its stand-offs`;
    case 'cooling':
      return `${what}; its lead on the right header`;
    case 'other':
    case undefined:
      return what;
  }
}

/** What can hurt a part while it comes out or goes in. */
const partCaution: Readonly<Record<StepPart['group'], Readonly<Record<'part-out' | 'part-in', string | null>>>> = {
  card: {
    'part-out': 'Its power plugs come off first. Hold it by its edge: it does not hang by the slot.',
    'part-in': 'Held until its bracket is screwed: a heavy one breaks the slot.',
  },
  drive: {
    'part-out': 'One that turned needs half a minute to stand still.',
    'part-in': 'Fixed before it is plugged.',
  },
  memory: { 'part-out': 'By its edges.', 'part-in': 'The notch decides which way round; never pressed over it.' },
  processor: {
    'part-out': 'Twist the cooler free: pulled straight up it can tear the processor out of its socket.',
    'part-in': 'No force on the frame before it lies flat; nothing touches its contacts.',
  },
  board: { 'part-out': null, 'part-in': 'A stand-off where the board has no hole is a short circuit.' },
  cooling: { 'part-out': null, 'part-in': null },
  other: { 'part-out': null, 'part-in': null },
};

const pieceText: Readonly<Record<FreePiece, (kind: PlugKind) => string>> = {
  plug: (kind) => plugName[kind],
  two: () => 'the two of its 6+2',
  four: () => 'the four of its 20+4',
  half: () => 'the other half of its 4+4',
};

/** What hangs free, cable by cable, those that are alike counted. */
export function freeEndsText(ends: readonly FreeEnd[]): string {
  const byCable = groupBy(ends, ({ cableCode, family }) => cableCode ?? `fixed cable, ${familyText[family]}`);
  return [...byCable]
    .map(([cable, free]) => {
      const alike = groupBy(free, ({ piece, plugKind }) => pieceText[piece](plugKind));
      const named = [...alike].map(([name, all]) => (all.length === 1 ? name : `${all.length} × ${name}`));
      return `${cable}: ${named.join(', ')}`;
    })
    .join('; ');
}

/** What can hurt a person or the machine at a step; null where nothing does. */
export function stepCaution(step: Step): string | null {
  switch (step.kind) {
    case 'power-off':
      return 'Nothing is unplugged while the lead is in. Smoke or smell: lead out first.';
    case 'strap':
      return 'A supply holds charge long after; it is never opened.';
    case 'still-out':
      return 'Nothing is plugged while the lead is in.';
    case 'two-people':
      return 'A heavy case is not lifted alone.';
    case 'cut-ties':
      return 'Close to the knot, never into a wire.';
    case 'radiator-off':
      return 'Hold it, so that it does not hang by its hoses or wires.';
    case 'unplug':
      if (step.harm !== null) return `Its adapter comes out and stays out: ${foundHarmText(step.harm)}.`;
      return step.inlet !== null && inletFamily(step.inlet.kind) === 'main'
        ? 'Press the latch, hold the board, pull the plug and not the wires.'
        : step.inlet?.kind === 'card-16'
          ? 'A hot or brown plug ends the work: note it at Find the fault.'
          : null;
    case 'screws-out':
      return 'It drops onto the board or card when the last screw is out.';
    case 'screws-in':
      return 'Coarse thread: what does not turn in by hand is crossed.';
    case 'plug':
      return step.inlet === null ? null : inletCaution(step.inlet.kind);
    case 'supply-end':
      return 'Only the cable that the plan names: one of another supply fits, and burns what it feeds.';
    case 'lead-out':
    case 'lead-back':
      return step.lead === null ? null : leadCaution(step.lead.kind);
    case 'part-out':
    case 'part-in':
      return step.part === null ? null : partCaution[step.part.group][step.kind];
    case 'old-end':
      return 'By its latch, not by its wires.';
    case 'bag-old':
    case 'bag-rest':
      return 'They fit no other supply unless their wires are known or probed.';
    case 'mark-old':
      return 'It does not go back on the shelf.';
    case 'panel-on':
      return 'A panel that needs force presses on a plug.';
    case 'rocker-on':
      return 'Hands and tools out. Smoke or smell: lead out first.';
    case 'panel-off':
    case 'free-way':
    case 'tray-out':
    case 'latch':
    case 'last-look':
    case 'fan-side':
    case 'tray-in':
    case 'lay-way':
    case 'radiator-on':
    case 'tie':
    case 'note-ways':
    case 'recheck':
      return null;
    case 'tie-free':
      return 'A free plug carries its voltage: away from boards, fans and bare metal.';
  }
}
