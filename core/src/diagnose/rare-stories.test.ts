import { describe, expect, it } from 'vitest';
import { diagnose, type NextStep } from './index.ts';
import { model, told } from './knowledge.test-help.ts';

const bench = {
  has: ['meter', 'tester', 'spare-supply', 'spare-memory', 'spare-card'] as const,
  mayMeterMains: true,
};
const terms = { bench, stopProbability: 0.9 };

interface Story {
  readonly told: string;
  readonly outcomes: Readonly<Record<string, string>>;
  /** The likeliest first. */
  readonly first: readonly string[];
  readonly atLeast: number;
  /** What may come next. */
  readonly next: readonly string[];
}

const stories: readonly Story[] = [
  {
    told: 'Turns on by itself: before anything is taken off, its drives are looked at',
    outcomes: { 'told-button': 'works', 'told-when': 'by-itself' },
    first: ['well', 'ctl-stuck'],
    atLeast: 0.2,
    next: ['look-drive'],
  },
  {
    told: 'Turns on by itself, and no more with the button off its pins',
    outcomes: { 'told-button': 'works', 'told-when': 'by-itself', 'do-button-off': 'cured' },
    first: ['ctl-stuck'],
    atLeast: 0.9,
    next: ['finding ctl-stuck'],
  },
  {
    told: 'Dead, bridging does nothing, but it starts with the reset lead off',
    outcomes: { 'told-button': 'nothing', 'look-standby-light': 'lit', 'do-bridge': 'same', 'do-reset': 'cured' },
    first: ['ctl-reset'],
    atLeast: 0.75,
    next: ['cure ctl-reset'],
  },
  {
    told: 'The new drive comes on a plug without 3.3 V: proved together with the plug itself',
    outcomes: {
      'told-button': 'works',
      'told-course': 'change',
      'look-drive': 'missing',
      'look-plugs': 'sound',
      'do-pin3': 'cured',
    },
    first: ['wire-drive', 'drive-pin3'],
    atLeast: 0.4,
    next: ['finding wire-drive'],
  },
  {
    told: 'Cuts out in games; its fan stands still and it smells burnt: nothing is powered',
    outcomes: { 'told-button': 'cuts-load', 'told-fan': 'still', 'told-smell': 'burnt' },
    first: ['psu-hot'],
    atLeast: 0.6,
    next: ['safe burnt'],
  },
  {
    told: 'Rattles and cuts out, but nothing smells: heat before a weak supply',
    outcomes: { 'told-button': 'cuts-load', 'told-fan': 'rattle', 'told-smell': 'none', 'told-place': 'dusty' },
    first: ['cpu-hot', 'psu-hot'],
    atLeast: 0.35,
    next: ['told-when', 'look-dust', 'm-psu-fan'],
  },
  {
    told: 'Starts only when cold, worse by the month, seven years old',
    outcomes: {
      'told-button': 'several-tries',
      'told-when': 'only-cold',
      'told-course': 'slowly',
      'told-age': '5-to-9',
    },
    first: ['psu-weak', 'psu-power-good'],
    atLeast: 0.5,
    next: ['d-swap', 'm-pg'],
  },
  {
    told: 'Starts only when warm, worse by the month: the supply before the coin cell',
    outcomes: { 'told-button': 'several-tries', 'told-when': 'only-warm', 'told-course': 'slowly' },
    first: ['psu-weak'],
    atLeast: 0.4,
    next: ['look-card', 'd-swap', 'm-pg'],
  },
  {
    told: 'Stumbles when the main cable is moved: the cable or its plug',
    outcomes: { 'told-button': 'cuts-random', 'do-wiggle': 'trips', 'do-main': 'home' },
    first: ['wire-breaks'],
    atLeast: 0.45,
    next: ['look-diag', 'd-swap', 'look-card', 'look-dust', 'm-steady', 'look-plugs'],
  },
  {
    told: 'Restarts when the drives spin up, and sags: weak before too small',
    outcomes: { 'told-button': 'restarts', 'told-when': 'drives-start', 'm-steady': 'sags' },
    first: ['psu-weak', 'psu-undersized'],
    atLeast: 0.6,
    next: ['d-swap'],
  },
  {
    told: 'Cuts out when the drives spin up and the peaks are over the rating: too small before weak',
    outcomes: { 'told-button': 'cuts-load', 'told-when': 'drives-start', 'c-load': 'peaks' },
    first: ['psu-undersized', 'psu-weak'],
    atLeast: 0.6,
    next: ['d-swap'],
  },
  {
    told: 'USB devices drop out and a rail is out at work: the supply, not the devices',
    outcomes: { 'told-button': 'works', 'told-usb': 'yes', 'm-rails-work': 'out' },
    first: ['psu-weak', 'psu-rail-out'],
    atLeast: 0.4,
    next: ['d-swap'],
  },
  {
    told: 'After the storm a lamp stays dark in the same strip: the strip before the supply',
    outcomes: { 'told-button': 'nothing', 'told-course': 'mains-event', 'look-outlet': 'dark' },
    first: ['mains-outlet', 'psu-no-standby'],
    atLeast: 0.8,
    next: ['do-outlet'],
  },
  {
    told: 'Its fan rests at low load and the outlet air is fine: no fault of the supply',
    outcomes: { 'told-button': 'works', 'told-fan': 'still', 'm-psu-fan': 'moves' },
    first: ['well'],
    atLeast: 0.2,
    next: ['look-drive'],
  },
  {
    told: 'Liquid inside: nothing is powered, whatever else was told',
    outcomes: { 'told-button': 'twitch', 'look-wet': 'wet' },
    first: ['short'],
    atLeast: 0.3,
    next: ['safe liquid'],
  },
  {
    told: 'Sags, and ripple is high at work: a weak supply',
    outcomes: { 'told-button': 'cuts-load', 'told-course': 'slowly', 'm-steady': 'sags', 'm-ripple': 'high' },
    first: ['psu-weak'],
    atLeast: 0.8,
    next: ['d-swap'],
  },
];

const nameOf = (step: NextStep): string =>
  step.do === 'check'
    ? step.checkId
    : step.do === 'make-safe'
      ? `safe ${step.dangerId}`
      : step.do === 'nothing'
        ? 'nothing'
        : `${step.do} ${step.faultId}`;

describe('what comes seldom', () => {
  it.each(stories)('$told', ({ outcomes, first, atLeast, next }) => {
    const found = diagnose(model, told(outcomes), terms);
    expect(found.suspects.slice(0, first.length).map(({ faultId }) => faultId)).toEqual(first);
    expect(found.suspects[0]!.probability).toBeGreaterThan(atLeast);
    expect(next).toContain(nameOf(found.step));
  });
});

describe('a dead machine whose standby light is lit', () => {
  it('gets no new button before something was looked at that tells whether it is one', () => {
    const { step } = diagnose(
      model,
      told({ 'told-button': 'nothing', 'told-course': 'sudden', 'look-standby-light': 'lit', 'look-switch': 'right' }),
      terms,
    );
    expect(step.do).toBe('check');
  });
});
