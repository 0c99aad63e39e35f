import { counted } from './figures.ts';
import { figureText } from './manner.ts';
import { inletName, plugName } from './plugs.ts';
import {
  type Adapter,
  type CableFigures,
  type CableRemedy,
  type OpenBecause,
  type PinRefusal,
  type PlanBreach,
  type Shortage,
  type adapterRefusal,
  type FoundHarm,
} from '../cable/index.ts';
import type { HarnessChange, Hindrance, InletRow, SeatCheck } from '../job/index.ts';
import { ownMainLabel, type CasePlace } from '../machine/index.ts';
import {
  inletFamily,
  sixteenPinStraightMillimetres,
  type CableFamily,
  type InletKind,
  type PlugKind,
} from '../standards/index.ts';

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
  stays: 'stays in',
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
      return 'Hold the board from behind while you push.';
    case 'main-own':
      return (
        'Only the plug or the adapter made for this very board: plugs that look alike differ pin by pin, and burn ' +
        'it. Hold the board from behind while you push.'
      );
    case 'sata':
    case 'peripheral-4':
      return null;
  }
}

const millimetres = (value: number) => `${Math.ceil(value)} mm`;
const amps = (value: number) => `${figureText(value, 1)} A`;
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
    case 'no-adapter':
      return `What was to go between plug and ${inlet} is not at hand, or does not go there. It is planned anew.`;
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
    case 'unnamed':
      return "a maker's own main plug needs the name of the very inlet that it fits, and no other has one";
    case 'no-such-use':
      return 'no use is known for it';
  }
}
/** What is wrong with an adapter that was found in a machine. */
export function foundHarmText(harm: FoundHarm): string {
  switch (harm) {
    case 'overloaded':
      return 'never: what hangs on it draws more than the plug behind it may give';
    case 'no-fit':
      return 'its plug does not fit this inlet';
    default:
      return adapterRefusalText(harm);
  }
}
/** What serves a maker's own main inlet; it is found by the inlet's name alone. */
export function ownPlugText(label: string): string {
  return label === ownMainLabel
    ? "A maker's own main connector: name it at Intake as its maker does. What fits it is found by that name alone."
    : `Only an adapter in Cable bags or a supply's cable that names “${label}” goes into it.`;
}

/** What is lost with an adapter although it may be used. */
export function adapterNote(
  adapter: Pick<Adapter, 'takes' | 'gives' | 'ownPlug' | 'legs' | 'addsMillimetres'>,
): string {
  if (adapter.ownPlug !== undefined) return `for “${adapter.ownPlug}” alone: plugs that look alike differ pin by pin`;
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
    `${figureText(worst.dropVolts * 1000, 0)} mV lost at the device, ${figureText(heat, 2)} W in ` +
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

/** A cable of a kit as it would be asked for, such as "card: 2 x card-6+2". */
export function kitCableText(cable: {
  readonly family: CableFamily;
  readonly twoEnded?: boolean | undefined;
  readonly onlySocket?: string | undefined;
  readonly plugs: readonly { readonly kind: PlugKind }[];
}): string {
  const kinds = [...new Set(cable.plugs.map((plug) => plug.kind))];
  return `${familyText[cable.family]}: ${kinds
    .map((kind) => {
      const count = cable.plugs.filter((plug) => plug.kind === kind).length;
      return count === 1 ? plugName[kind] : `${count} x ${plugName[kind]}`;
    })
    .join(' and ')}${cable.twoEnded === true ? ', two plugs at the supply' : ''}${
    cable.onlySocket === undefined ? '' : `, only in ${cable.onlySocket}`
  }`;
}
