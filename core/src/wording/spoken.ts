import {
  isRail,
  type Condition,
  type JudgedPin,
  type PinExpectation,
  type Touch,
  type Verdict,
  type VerdictWord,
  type WalkPin,
} from '../measure/index.ts';
import type { RailName } from '../standards/index.ts';
import { voltsText } from './figures.ts';
import { conditionText, subjectText, verdictText } from './words.ts';

/** Rails as one says them; a voice reads signs and units its own way. */
export const spokenRail: Readonly<Record<RailName, string>> = {
  '+12': 'plus 12 volts',
  '+5': 'plus 5 volts',
  '+3.3': 'plus 3.3 volts',
  '-12': 'minus 12 volts',
  '+5sb': 'standby',
};

const spokenVolts = (volts: number) => (volts < 0 ? `minus ${voltsText(-volts)}` : voltsText(volts));

function spokenExpectation(expects: PinExpectation): string {
  switch (expects.kind) {
    case 'rail':
      return spokenRail[expects.rail];
    case 'ground':
      return 'ground';
    case 'signal':
      return { 'power-good': 'power-good', start: 'the start line', sense: 'a sense wire' }[expects.signal];
    case 'coded':
      return 'ground or open';
    case 'free':
      return 'nothing';
  }
}

/** What to touch next, as one tells it to somebody with both hands busy. */
export function spokenTouch(touch: Touch, { name, expects }: Pick<WalkPin, 'name' | 'expects'>): string {
  return touch.way === 'red-on-pin'
    ? `Pin ${name}, ${spokenExpectation(expects)}.`
    : `Black on pin ${name}, ${spokenExpectation(expects)}. Red stays on pin ${touch.knownPin}.`;
}

/** What a touched pin came to. */
export function spokenPin(pin: JudgedPin): string {
  if (pin.expects.kind === 'coded' && pin.finding === 'right')
    return `Pin ${pin.name}: ${pin.carries === 'ground' ? 'ground' : 'open'}.`;
  const shown = pin.value?.kind === 'figure' ? spokenVolts(pin.value.figure) : 'nothing';
  const carries =
    pin.carries === null ? 'something else' : pin.carries === 'ground' ? 'ground' : spokenRail[pin.carries];
  const finding =
    pin.finding === 'wrong'
      ? `wrong, it carries ${carries}`
      : { right: 'right', weak: 'weak', open: 'no ground', unproved: 'not proved', missing: 'missing' }[pin.finding];
  return `Pin ${pin.name}: ${shown}, ${finding}.`;
}

/** What all readings of a place came to. */
export const spokenVerdict = (verdict: Verdict): string =>
  isRail(verdict.subject) && verdict.mean !== null
    ? spokenReading(verdict.subject, verdict.condition, verdict.mean, verdict.word)
    : `${subjectText[verdict.subject]} ${conditionText[verdict.condition]}: ` +
      `${verdictText[verdict.word].toLowerCase()}.`;

/** What a held value came to. */
export const spokenReading = (rail: RailName, condition: Condition, volts: number, word: VerdictWord): string =>
  `${spokenRail[rail]} ${conditionText[condition]}, ${spokenVolts(volts)}: ${verdictText[word].toLowerCase()}.`;
