import { groupBy } from '../group-by.ts';
import { leadCaution, leadText } from './leads.ts';
import { inletName, plugName } from './plugs.ts';
import type {
  Adapter,
  CableFigures,
  CableRemedy,
  OpenBecause,
  PinRefusal,
  PlanBreach,
  Shortage,
} from '../cable/index.ts';
import type {
  FreeEnd,
  FreePiece,
  HarnessChange,
  Hindrance,
  InletRow,
  SeatCheck,
  Step,
  StepPart,
  StepPhase,
} from '../job/index.ts';
import type { CasePlace } from '../machine/index.ts';
import {
  inletFamily,
  sixteenPinStraightMillimetres,
  type CableFamily,
  type InletKind,
  type PlugKind,
} from '../standards/index.ts';
import type { adapterRefusal } from '../cable/index.ts';

export const placeText: Record<CasePlace, string> = {
  'board-top': 'Top of the board',
  'board-edge': 'Edge of the board',
  slots: 'Slots',
  top: 'Top of the case',
  front: 'Front',
  'drive-cage': 'Drive cage',
  floor: 'Floor',
};
export const hindranceText: Record<Hindrance, string> = {
  radiator: 'radiator over the processor plug',
  tray: 'supply on a tray or sled',
  latch: 'release latch',
  tight: 'no room behind the supply',
  heavy: 'heavy: two people',
  clips: "maker's own clips for each cable",
};
export const stepPhaseText: Record<StepPhase, string> = { 'take-out': 'Take out', refit: 'Refit' };
export const familyText: Record<CableFamily, string> = {
  main: 'main',
  cpu: 'processor',
  card: 'card',
  'card-16': '16-pin card',
  drive: 'drive',
};

export function seatCheckText(check: SeatCheck): string {
  switch (check) {
    case 'click':
      return 'pushed home, click heard';
    case 'tug':
      return 'tug holds';
    case 'gap':
      return 'gap even all round';
    case 'halves':
      return 'both halves fully in';
    case 'bend':
      return `no bend within ${sixteenPinStraightMillimetres} mm`;
    case 'panel':
      return 'side panel does not press';
  }
}

export const stateWordText: Record<InletRow['state'], string> = {
  seated: 'seated',
  'to-seat': 'to seat',
  open: 'no cable',
  wrong: 'wrong plug',
};

/** What is said at a connector before it is pushed in; null where nothing can go wrong that the eye does not see. */
export function inletCaution(kind: InletKind): string | null {
  switch (kind) {
    case 'cpu-8':
    case 'cpu-4':
      return 'The end marked CPU goes here. A card plug fits with force and carries the opposite polarity.';
    case 'card-8':
    case 'card-6':
      return 'The end marked for the card goes here. A processor plug fits with force and burns it.';
    case 'card-16':
      return `No bend within ${sixteenPinStraightMillimetres} mm of the plug, and no side panel pressing on it.`;
    case 'small-drive-4':
      return 'It can go in one pin off or upside down, and burns the drive. Look twice.';
    case 'main-24':
    case 'main-20':
    case 'aux-6':
    case 'main-own':
      return 'Hold the board from behind while you push.';
    case 'sata':
    case 'peripheral-4':
      return null;
  }
}

const millimetres = (value: number) => `${Math.ceil(value)} mm`;
const amps = (value: number) => `${value.toFixed(1)} A`;
type NameOf = (inletId: string) => string;

export function breachText(breach: PlanBreach, nameOf: NameOf): string {
  switch (breach.code) {
    case 'no-fit':
      return `A plug (${plugName[breach.plugKind]}) does not belong in ${nameOf(breach.inletId)}.`;
    case 'too-short':
      return `${millimetres(breach.missingMillimetres)} too short for ${nameOf(breach.inletId)}.`;
    case 'spacing':
      return (
        `${nameOf(breach.inletId)} and ${nameOf(breach.otherInletId)} are ` +
        `${millimetres(breach.needsMillimetres)} apart, the plugs only ` +
        `${millimetres(breach.hasMillimetres)}.`
      );
    case 'weak-chain':
      return `${nameOf(breach.inletId)} keeps the machine cool and does not go on thin wire (${breach.gauge} AWG).`;
    case 'shared-not-allowed':
      return `${breach.cableCode} feeds several inlets that each want a cable of their own.`;
    case 'shared-overload':
      return (
        `${breach.cableCode} would carry ${Math.round(breach.watts)} W, a shared card cable ` +
        `carries ${breach.limitWatts} W.`
      );
    case 'chain-overload':
      return (
        `${breach.cableCode} would carry ${amps(breach.amps)} on ${breach.rail} V, a drive cable ` +
        `carries ${amps(breach.limitAmps)}.`
      );
    case 'cable-overload':
      return (
        `${breach.cableCode} would carry ${amps(breach.amps)} on ${breach.rail} V, its wires, ` +
        `contacts or code allow ${amps(breach.limitAmps)}.`
      );
    case 'adapter-overload':
      return `The adapter to ${nameOf(breach.inletId)} does not carry what the inlet draws.`;
    case 'plug-twice':
      return `One plug of ${breach.cableCode} is meant for two inlets.`;
    case 'socket-twice':
      return `Two cables are meant for socket ${breach.socketLabel}.`;
    case 'socket-kind':
      return `${breach.cableCode} does not belong in socket ${breach.socketLabel}.`;
  }
}

export function pinRefusalText(refusal: PinRefusal, nameOf: NameOf): string {
  const inlet = nameOf(refusal.inletId);
  switch (refusal.code) {
    case 'lost':
      return `${inlet} was put on a cable that this supply does not have. It is planned anew.`;
    case 'plug-twice':
      return `${inlet} was put on a plug that is taken already. It is planned anew.`;
    case 'inlet-twice':
      return `${inlet} was put on two plugs. The first counts.`;
    case 'no-fit':
      return (
        `The plug${refusal.plugKind === null ? '' : ` (${plugName[refusal.plugKind]})`} does not ` +
        `belong in ${inlet}. Take it out again.`
      );
    case 'socket-kind':
      return `Socket ${refusal.socketLabel ?? ''} does not take this cable. Another is planned.`;
    case 'socket-twice':
      return `Socket ${refusal.socketLabel ?? ''} is taken already. Another is planned.`;
    case 'two-sockets':
      return 'One cable was put in two sockets. The first counts.';
    case 'no-socket':
      return `No socket is left for the cable that ${inlet} was put on. It is planned anew.`;
  }
}

const counted = (count: number, one: string) => `${count === 1 ? 'one' : count} ${one}${count === 1 ? '' : 's'}`;

function shortageText(shortage: Shortage, family: CableFamily): string {
  const name = familyText[family];
  switch (shortage.code) {
    case 'plug-kind':
      return 'no plug of its kind';
    case 'cables':
      return `${counted(shortage.have, `${name} cable`)} with such a plug`;
    case 'sockets':
      return `${counted(shortage.have, 'socket')} that could feed them`;
    case 'reach':
      return `${millimetres(shortage.missingMillimetres)} too short`;
    case 'sharing':
      return shortage.by === 'rule' ? 'this shop lets no two share a cable' : 'together too much for one shared cable';
    case 'wire-load':
      return 'the wires of the cables that are left do not carry its load';
    case 'chain-load':
      return 'together too much for one drive cable';
    case 'thin-wire':
      return 'only chains of thin wire left, and it keeps the machine cool';
    case 'spacing':
      return 'the plugs of one cable too close together for their places';
  }
}

function cableRemedyText(remedy: CableRemedy, nameOf: NameOf, pieceName: (id: string) => string): string {
  switch (remedy.code) {
    case 'cable':
      return (
        `${counted(remedy.count, 'more cable')} of the kind ${pieceName(remedy.kitCableId)}, from ` +
        'the maker of this supply'
      );
    case 'extension':
      return (
        `an extension (${inletName[remedy.kind]}) of ${Math.ceil(remedy.millimetres / 10) * 10} ` +
        `mm for ${nameOf(remedy.inletId)}`
      );
    case 'adapter':
      return `the adapter ${pieceName(remedy.adapterId)}, if the shop's rule lets it`;
    case 'spare':
      return `the spare cable ${pieceName(remedy.kitCableId)} from its bag, if the shop's rule lets it`;
    case 'allow-sharing':
      return "let two card inlets share a cable, by the shop's rule";
    case 'move-pin':
      return `give back ${nameOf(remedy.inletId)}, which was moved by hand`;
    case 'other-supply':
      return `a supply that feeds ${remedy.sockets} ${familyText[remedy.family]} inlets`;
  }
}

/**
 * Why an inlet stays open, and the least that would serve it, such as "3 inlets (…), 2 sockets that could feed them".
 */
export function openBecauseText(
  because: OpenBecause,
  kindOf: (inletId: string) => InletKind,
  nameOf: NameOf,
  pieceName: (id: string) => string,
): { readonly why: string; readonly remedy: string } {
  const family = inletFamily(kindOf(because.inletId));
  const set =
    because.together.length === 1
      ? nameOf(because.inletId)
      : `${because.together.length} inlets (${because.together.map(nameOf).join(', ')})`;
  const short = because.shortages.map((shortage) => shortageText(shortage, family));
  return {
    why: short.length === 0 ? `${set}: several limits at once.` : `${set}: ${short.join('; ')}.`,
    remedy:
      `${because.remedies.length > 1 ? 'One of these would do' : 'It would take'}: ` +
      `${because.remedies.map((remedy) => cableRemedyText(remedy, nameOf, pieceName)).join('; or ')}.` +
      (because.proved ? '' : ' So many inlets differ that not everything was tried: there may be a lesser way.'),
  };
}

export function adapterRefusalText(refusal: NonNullable<ReturnType<typeof adapterRefusal>>): string {
  switch (refusal) {
    case 'crosses-purposes':
      return 'never: it feeds one purpose from another, such as a card from drive plugs';
    case 'larger-than-source':
      return 'never: it makes a larger inlet of a smaller plug, which then carries more than it can';
    case 'moulded':
      return 'never: moulded adapters from the four-pin plug are a fire risk';
    case 'too-few-legs':
      return 'never: fewer separate 8-pin cables than its watts ask for';
    case 'no-such-use':
      return 'no use is known for it';
  }
}
/** What is lost with an adapter although it may be used. */
export function adapterNote(adapter: Pick<Adapter, 'takes' | 'gives' | 'legs' | 'addsMillimetres'>): string {
  if (adapter.takes === 'peripheral-4' && adapter.gives === 'sata') return 'loses 3.3 V and hot plugging';
  if (adapter.legs > 1) return `each of its ${adapter.legs} legs on a cable of its own`;
  return adapter.addsMillimetres > 0
    ? `adds ${millimetres(adapter.addsMillimetres)}, used once only`
    : 'changes the plug';
}

/** What a cable carries, in one line. */
export function cableFiguresText(figures: CableFigures): string {
  const plugs = figures.plugs.filter((plug) => plug.rail !== null);
  const worst = [...plugs].sort((a, b) => b.dropVolts - a.dropVolts)[0];
  if (figures.rail === null || worst === undefined) return 'carries no lasting load that is known';
  const heat = Math.max(...plugs.map((plug) => plug.plugHeatWatts));
  return (
    `${amps(figures.conductorAmps)} a wire on ${figures.rail} V of ${amps(figures.mostAmps)}, ` +
    `${(worst.dropVolts * 1000).toFixed(0)} mV lost at the device, ${heat.toFixed(2)} W in ` +
    'the plug'
  );
}

export const harnessWordText: Record<HarnessChange['word'], string> = {
  same: 'same cable',
  replaced: "new supply's cable",
  new: 'new',
  gone: 'left out, part removed',
  open: 'no cable',
  'not-recorded': 'not recorded before',
};

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
      return `${inlet}${step.cable === null ? '' : `, cable ${step.cable}`}`;
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

/** A cable of a kit as it would be asked for, such as "card: 2 x card-6+2". */
export function kitCableText(cable: {
  readonly family: CableFamily;
  readonly plugs: readonly { readonly kind: PlugKind }[];
}): string {
  const kinds = [...new Set(cable.plugs.map((plug) => plug.kind))];
  return `${familyText[cable.family]}: ${kinds
    .map((kind) => {
      const count = cable.plugs.filter((plug) => plug.kind === kind).length;
      return count === 1 ? plugName[kind] : `${count} x ${plugName[kind]}`;
    })
    .join(' and ')}`;
}
