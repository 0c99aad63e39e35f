import { countedWatts, type CodedWatts, type CrossedPin, type Crossing } from '../cable/index.ts';
import type { ProbedCode } from '../measure/index.ts';
import type { SocketSignal } from '../standards/index.ts';

export const signalText: Record<SocketSignal, string> = {
  '12': '+12 V',
  '5': '+5 V',
  '3.3': '+3.3 V',
  G: 'ground',
  SB: '+5 V standby',
  PG: 'power-good',
  ST: 'the start line',
  '-12': '-12 V',
  S: 'sense',
  NC: 'nothing',
  S12: 'the sense of +12 V',
  S5: 'the sense of +5 V',
  'S3.3': 'the sense of +3.3 V',
  SG: 'the sense of ground',
};
export const crossingWordText: Record<Crossing['word'], string> = {
  safe: 'Safe',
  incomplete: 'Incomplete',
  unknown: 'Not known',
  harmful: 'Harmful',
};

const belongsText: Readonly<Record<CrossedPin['belongs'], string>> = {
  ...signalText,
  stable: 'a signal of the card',
  present: 'a signal of the card',
  coded: 'ground or nothing',
};

/** What one pin would carry and what that does; empty where it is right. */
export function crossedPinText({ name: pin, belongs, carries, second, word }: CrossedPin): string {
  const wire = (signal: CrossedPin['carries']) =>
    signal === null ? 'something' : signal === 'nothing' ? 'nothing' : signalText[signal];
  const found = second === undefined ? wire(carries) : `${wire(carries)} and ${wire(second)}`;
  switch (word) {
    case 'right':
      return '';
    case 'short':
      return `Pin ${pin}: ${found} meets ${belongsText[belongs]}. A short: the plug and the wire burn.`;
    case 'wrong-voltage':
      return `Pin ${pin}: ${found} where ${belongsText[belongs]} belongs. It destroys the device.`;
    case 'misplaced':
      return `Pin ${pin}: ${found} where ${belongsText[belongs]} belongs.`;
    case 'missing':
      return `Pin ${pin}: ${belongsText[belongs]} does not arrive.`;
    case 'unknown':
      if (carries === 'S' || second === 'S')
        return `Pin ${pin}: a sense wire, nobody knows of what; it belongs where it senses.`;
      return `Pin ${pin}: not known, must show ${belongsText[belongs]}.`;
  }
}

const namesOf = ({ probe, pins }: Crossing) => pins.filter(({ pin }) => probe.includes(pin)).map(({ name }) => name);

/**
 * What the print on a spare 16-pin cable says against what its contacts code; empty where they agree or nobody knows.
 */
export function codedAgainstPrint(printed: CodedWatts | null, code: ProbedCode | null): string {
  const counted = countedWatts(printed, code);
  if (printed === null || counted === undefined || counted === printed) return '';
  return `${printed} W are printed on it, but its small contacts code ${
    code === 'none' ? '150 W or nothing' : '300 or 450 W'
  }: the card goes by the contacts, and so does the plan (${counted} W).`;
}

/** What the verdict asks for, in one sentence. */
export function crossingSentence(crossing: Crossing): string {
  switch (crossing.word) {
    case 'safe':
      return 'Every pin carries what belongs there.';
    case 'harmful':
      return 'Never plug this in here.';
    case 'incomplete':
      return `It does no harm, but ${crossing.pins.filter((pin) => pin.word === 'missing').length} pins stay without.`;
    case 'unknown': {
      const every = crossing.probe.length === crossing.pins.length;
      return (
        `Probe ${every ? 'every pin' : `pin ${namesOf(crossing).join(', ')}`} ` +
        'at the loose end first, nothing plugged in.'
      );
    }
  }
}
