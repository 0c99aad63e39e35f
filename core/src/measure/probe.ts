import {
  inletFace,
  railBand,
  type Guide,
  type InletKind,
  type PinSignal,
  type RailName,
  type SmallContact,
} from '../standards/index.ts';
import type { ReadingValue } from './reading.ts';

/** One pin with what it showed. */
export interface ProbedPin {
  readonly pin: number;
  /** Red on the pin, black on the supply's ground. */
  readonly value: ReadingValue;
  /**
   * What proves a ground as one, since an open pin shows 0 V as well: the volts with red on a known rail and black on
   * the pin, or continuity to the supply's ground with the lead out.
   */
  readonly ground?: GroundProof | undefined;
}

export type GroundProof =
  { readonly kind: 'rail'; readonly volts: number } | { readonly kind: 'continuity'; readonly heard: boolean };

/** What a pin must show while the supply runs, black probe on the supply's ground. */
export type PinExpectation =
  | { readonly kind: 'rail'; readonly rail: RailName; readonly lower: number; readonly upper: number }
  | { readonly kind: 'ground'; readonly lower: number; readonly upper: number }
  | {
      readonly kind: 'signal';
      readonly signal: 'power-good' | 'start' | 'sense';
      readonly lower: number;
      readonly upper: number;
    }
  /** It says by ground or open how many watts the cable is for. */
  | { readonly kind: 'coded'; readonly lower: number; readonly upper: number }
  | { readonly kind: 'free' };

/** A pin of a plug in the order of the walk. */
export interface WalkPin {
  readonly pin: number;
  /** As it is called at the plug: its number, or S3 of the 16-pin one. */
  readonly name: string;
  readonly signal: PinSignal | SmallContact['signal'];
  readonly expects: PinExpectation;
}

/** Ground and sense pins lie at the supply's ground; a probe shows no more than this (bench practice). */
const groundVolts = 0.2;
/** At the 16-pin plug and in the card slot +12 may go down to this. */
const cardTwelveLowest = 11.04;

/**
 * What a pin must show. Power-good is high from 2.4 V; the start line is held low while the supply runs; the free pin
 * of the main plug carries nothing or the historic -5. Source: design guide and card electromechanical specification.
 * @param guide of the supply that feeds the plug
 */
export function pinExpectation(plug: InletKind, signal: PinSignal, guide: Guide): PinExpectation {
  const rail = (name: RailName): PinExpectation => {
    const { lower, upper } = railBand(name, guide);
    return {
      kind: 'rail',
      rail: name,
      lower: name === '+12' && plug.startsWith('card-') ? cardTwelveLowest : lower,
      upper,
    };
  };
  switch (signal) {
    case '12':
      return rail('+12');
    case '5':
      return rail('+5');
    case '3.3':
      return rail('+3.3');
    case '-12':
      return rail('-12');
    case 'SB':
      return rail('+5sb');
    case 'G':
      return { kind: 'ground', lower: -groundVolts, upper: groundVolts };
    case 'S':
      return { kind: 'signal', signal: 'sense', lower: -groundVolts, upper: groundVolts };
    case 'PG':
      return { kind: 'signal', signal: 'power-good', lower: 2.4, upper: 5.25 };
    case 'ST':
      return { kind: 'signal', signal: 'start', lower: -groundVolts, upper: 0.8 };
    case 'NC':
      return { kind: 'free' };
  }
}

/**
 * Every pin of a plug in the order in which it is touched: by number, free pins left out; of the small contacts those
 * that code the watts.
 */
export function walkOf(plug: InletKind, guide: Guide): WalkPin[] {
  const { rows, small = [] } = inletFace[plug];
  const pins = rows
    .flat()
    .filter((item) => item.signal !== 'NC')
    .sort((a, b) => a.pin - b.pin)
    .map(({ pin, signal }) => ({ pin, name: `${pin}`, signal, expects: pinExpectation(plug, signal, guide) }));
  const coded = small
    .filter(({ signal }) => signal === 'coded')
    .map((contact): WalkPin => ({
      ...contact,
      expects: { kind: 'coded', lower: -groundVolts, upper: groundVolts },
    }));
  return [...pins, ...coded];
}

export type PinFinding = 'right' | 'weak' | 'wrong' | 'missing' | 'unproved' | 'open';

/**
 * A pin judged: `weak` is the right rail outside its limits, `wrong` is something else where it does harm; a ground
 * that shows no volts is `unproved` until it was proved, and `open` where the proof shows that nothing is connected.
 */
export interface JudgedPin extends WalkPin {
  readonly value: ReadingValue | null;
  readonly finding: PinFinding;
  /** What the pin carries instead, where it can be told. */
  readonly carries: RailName | 'ground' | null;
}

export interface ProbeVerdict {
  /**
   * `safe` only when every pin was touched and is right, grounds proved; `wrong` as soon as one is; else `incomplete`.
   */
  readonly word: 'safe' | 'wrong' | 'incomplete';
  readonly pins: readonly JudgedPin[];
}

function carried(volts: number): RailName | 'ground' | null {
  if (Math.abs(volts) <= groundVolts) return 'ground';
  for (const rail of ['+12', '+5', '+3.3', '-12'] as const) {
    const { nominal } = railBand(rail, '2.x');
    if (Math.abs(volts - nominal) <= 0.1 * Math.abs(nominal)) return rail;
  }
  return null;
}

/** A ground that carries no volts: is it one? */
function groundFinding(proof: GroundProof | undefined): PinFinding {
  if (proof === undefined) return 'unproved';
  if (proof.kind === 'continuity') return proof.heard ? 'right' : 'open';
  const shown = carried(proof.volts);
  return shown === null || shown === 'ground' || shown === '-12' ? 'open' : 'right';
}

/** A contact that codes watts is right at ground and right open: which it is has to be proved, as no volts show it. */
function judgeCoded(pin: WalkPin, probed: ProbedPin | undefined, volts: number): JudgedPin {
  const value = probed?.value ?? null;
  if (Math.abs(volts) > groundVolts) return { ...pin, value, finding: 'wrong', carries: carried(volts) };
  const proved = groundFinding(probed?.ground);
  return {
    ...pin,
    value,
    finding: proved === 'unproved' ? 'unproved' : 'right',
    carries: proved === 'right' ? 'ground' : null,
  };
}

/** What a probed 16-pin plug is coded for: a figure in watts, `by-print` 300 or 450, `none` 150 at most or nothing. */
export type ProbedCode = 600 | 'by-print' | 'none';

/**
 * The watts that a plug's small contacts code: both at ground 600, one of them 300 or 450 (published both ways round),
 * none 150 or nothing. Null for a plug without them, and until both were probed.
 * Source: card electromechanical specification.
 */
export function probedCode({ pins }: ProbeVerdict): ProbedCode | null {
  const coded = pins.filter(({ expects }) => expects.kind === 'coded');
  if (coded.length === 0 || coded.some(({ finding }) => finding !== 'right')) return null;
  const grounded = coded.filter(({ carries }) => carries === 'ground').length;
  return grounded === coded.length ? 600 : grounded === 0 ? 'none' : 'by-print';
}

/** @param mayBeEmpty the standard lets this pin be left out of the plug */
function judgePin(pin: WalkPin, probed: ProbedPin | undefined, mayBeEmpty: boolean): JudgedPin {
  const value = probed?.value;
  const judged = (finding: PinFinding, carries: JudgedPin['carries'] = null): JudgedPin => ({
    ...pin,
    value: value ?? null,
    finding,
    carries,
  });
  if (value === undefined) return judged('missing');
  const { expects } = pin;
  if (expects.kind === 'free') return judged('right');
  if (value.kind === 'code' && value.code === 'absent' && (mayBeEmpty || expects.kind === 'coded'))
    return judged('right');
  if (value.kind === 'code')
    return judged(
      value.code === 'absent' && expects.kind === 'signal' && expects.signal === 'sense'
        ? 'weak'
        : expects.kind === 'rail'
          ? 'weak'
          : 'wrong',
    );
  const volts = value.figure;
  if (expects.kind === 'coded') return judgeCoded(pin, probed, volts);
  if (volts >= expects.lower && volts <= expects.upper)
    return judged(expects.kind === 'ground' ? groundFinding(probed?.ground) : 'right', carried(volts));
  const carries = carried(volts);
  if (expects.kind === 'rail') {
    // A rail that sags is weak; another rail, ground or the other sign is a wrong wire.
    const nominal = railBand(expects.rail, '2.x').nominal;
    const itself =
      carries === null &&
      Math.sign(volts) === Math.sign(nominal) &&
      Math.abs(volts - nominal) <= 0.25 * Math.abs(nominal);
    return judged(itself || carries === expects.rail ? 'weak' : 'wrong', carries);
  }
  return judged('wrong', carries);
}

/**
 * The verdict on a cable probed at its device end: what each pin carries against what the plug's standard wants there.
 * A pin that is weak is not a wrong wire, but it is not safe either: the supply is looked at first.
 */
export function judgeProbe(plug: InletKind, probed: readonly ProbedPin[], guide: Guide): ProbeVerdict {
  const pins = walkOf(plug, guide).map((pin) =>
    judgePin(
      pin,
      probed.find((item) => item.pin === pin.pin),
      // A 6-pin card plug may have two +12 contacts or three: its pin 2 may be empty (card electromechanical
      // specification).
      plug === 'card-6' && pin.pin === 2,
    ),
  );
  const word = pins.some((pin) => pin.finding === 'wrong')
    ? 'wrong'
    : pins.length > 0 && pins.every((pin) => pin.finding === 'right')
      ? 'safe'
      : 'incomplete';
  return { word, pins };
}
