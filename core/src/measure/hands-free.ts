import { railBand, type RailName } from '../standards/index.ts';
import { touchingShare } from './auto-hold.ts';
import type { JudgedPin, ProbedPin, ProbeVerdict } from './probe.ts';

/** A probe is in the air once so many answers in a row say so: one alone may be a slip. */
const airLooks = 3;

/** Taking figures with both hands at the probes. */
export interface HandsFree {
  /** Answers in a row that came from the air. */
  readonly inAir: number;
  /** The probe was lifted after what was taken last; until then nothing is taken. */
  readonly lifted: boolean;
}

/** Nothing is taken before the probe was seen in the air: it may still touch what was read before. */
export const stillTouching: HandsFree = { inAir: 0, lifted: false };

/** A figure of the meter came by. */
export function hearFigure(state: HandsFree, rail: RailName, volts: number): HandsFree {
  const inAir = Math.abs(volts) < touchingShare * Math.abs(railBand(rail, '2.x').nominal) ? state.inAir + 1 : 0;
  return { inAir, lifted: state.lifted || inAir >= airLooks };
}

/** A figure came to rest: it is taken if the probe was lifted since the last one. */
export const takesHeld = (state: HandsFree): boolean => state.lifted;

/** How a pin is touched with both hands busy. */
export type Touch =
  /** Red on the pin, black on the supply's ground; the meter waits for a figure on this rail. */
  | { readonly way: 'red-on-pin'; readonly pin: number; readonly rail: RailName }
  /**
   * Red on a pin that is known to carry this rail, black on the pin: what lies at ground shows the rail, and that
   * proves it; a pin in the air shows nothing.
   */
  | {
      readonly way: 'black-on-pin';
      readonly pin: number;
      readonly rail: RailName;
      readonly knownPin: number;
      readonly knownVolts: number;
    };

const knownRails = ['+12', '+5', '+3.3'] as const;

/** A pin that was found to carry its rail, +12 before others. */
function knownRail(
  verdict: ProbeVerdict,
): { readonly rail: RailName; readonly knownPin: number; readonly knownVolts: number } | null {
  for (const rail of knownRails)
    for (const { pin, expects, finding, value } of verdict.pins)
      if (expects.kind === 'rail' && expects.rail === rail && finding === 'right' && value?.kind === 'figure')
        return { rail, knownPin: pin, knownVolts: value.figure };
  return null;
}

/** Where a pin that must show something is waited for; null where it must lie at ground. */
function waitedRail({ expects }: JudgedPin): RailName | null {
  if (expects.kind === 'rail') return expects.rail;
  return expects.kind === 'signal' && expects.signal === 'power-good' ? '+5' : null;
}

/**
 * The next pin of a walk with both hands at the probes: first each that must show something, then, with the probes
 * changed over once, those that must lie at ground. Null when none is left, or when there is no rail to prove a ground
 * by.
 */
export function nextTouch(verdict: ProbeVerdict): Touch | null {
  for (const shows of verdict.pins) {
    const rail = shows.finding === 'missing' ? waitedRail(shows) : null;
    if (rail !== null) return { way: 'red-on-pin', pin: shows.pin, rail };
  }
  const low = verdict.pins.find((pin) => pin.finding === 'missing' || pin.finding === 'unproved');
  const known = knownRail(verdict);
  if (low === undefined || known === null) return null;
  return { way: 'black-on-pin', pin: low.pin, ...known };
}

/** Millivolts are kept. */
const toMillivolts = (volts: number) => Math.round(volts * 1000) / 1000;

/**
 * What a held figure says of the pin: itself with red on it, else the known rail less what was shown, and the proof
 * that it is a ground. @param volts what the meter shows
 */
export function touched(touch: Touch, volts: number): ProbedPin {
  if (touch.way === 'red-on-pin') return { pin: touch.pin, value: { kind: 'figure', figure: toMillivolts(volts) } };
  return {
    pin: touch.pin,
    value: { kind: 'figure', figure: toMillivolts(touch.knownVolts - volts) },
    ground: { kind: 'rail', volts: toMillivolts(volts) },
  };
}
