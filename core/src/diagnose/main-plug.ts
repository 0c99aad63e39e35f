import type { InletKind } from '../standards/index.ts';
import type { Check } from './knowledge.ts';

/** What of a check depends on the machine's main plug. */
export interface CheckAtPlug {
  readonly steps: readonly string[];
  readonly drawing: string | undefined;
  /** The plug is a maker's own: no pin of it is named. */
  readonly ownPlug: boolean;
}

const mainDrawing = /^main-24(?::([\d,]+))?$/;
const pinWord = /\bpin (\d+)/g;
const makersSheet = "The pins of a maker's own plug stand in its maker's sheet: without it leave this check out.";

/**
 * The pin of the 20-pin main plug that carries what this one of the 24-pin plug does; null for the four that it lacks.
 * Source: ATX design guide: the upper row is shorter by two at its end, so that the lower row's numbers fall by two.
 */
export function pinOn20(pin: number): number | null {
  if (pin >= 1 && pin <= 10) return pin;
  return pin >= 13 && pin <= 22 ? pin - 2 : null;
}

/** The main inlet of a machine; null where none was entered. */
export function mainInletOf(
  parts: readonly { readonly inlets: readonly { readonly kind: InletKind }[] }[],
): InletKind | null {
  const kinds = parts.flatMap(({ inlets }) => inlets.map(({ kind }) => kind));
  return kinds.find((kind) => kind.startsWith('main-')) ?? null;
}

/**
 * A check's steps and drawing as they hold for the machine's main plug: those of the knowledge are for 24 pins.
 * @throws when a pin is named that the 20-pin plug lacks, which a test of the shipped knowledge rules out
 */
export function checkAtPlug(check: Pick<Check, 'steps' | 'drawing'>, main: InletKind | null): CheckAtPlug {
  const { steps, drawing } = check;
  const lit = drawing === undefined ? null : mainDrawing.exec(drawing);
  if (lit === null || main === null || main === 'main-24') return { steps, drawing, ownPlug: false };
  if (main === 'main-own')
    return {
      steps: steps.map((step) => (/\bpin \d/.test(step) ? makersSheet : step)),
      drawing: undefined,
      ownPlug: true,
    };
  const pins = lit[1]?.split(',').flatMap((pin) => pinOn20(Number(pin)) ?? []);
  return {
    steps: steps.map((step) =>
      step.replace(pinWord, (_, pin: string) => {
        const there = pinOn20(Number(pin));
        if (there === null) throw new Error(`the 20-pin plug has no pin ${pin} of 24`);
        return `pin ${there}`;
      }),
    ),
    drawing: pins === undefined ? 'main-20' : `main-20:${pins.join(',')}`,
    ownPlug: false,
  };
}
