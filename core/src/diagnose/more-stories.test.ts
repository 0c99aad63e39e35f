import { describe, expect, it } from 'vitest';
import { conclude, contradictionIn, suspects, type Conclusion } from './index.ts';
import { model } from './knowledge.test-help.ts';

interface Story {
  readonly told: string;
  readonly outcomes: Readonly<Record<string, string>>;
  /** The likeliest first; more names where two are close. */
  readonly first: readonly string[];
  readonly atLeast: number;
  readonly state: Conclusion['state'];
}

const stories: readonly Story[] = [
  {
    told: 'After the storm: dead, standby light dark, smells burnt',
    outcomes: {
      'told-button': 'nothing',
      'told-course': 'mains-event',
      'told-smell': 'burnt',
      'look-standby-light': 'dark',
    },
    first: ['psu-no-standby', 'psu-no-start'],
    atLeast: 0.85,
    state: 'to-prove',
  },
  {
    told: 'Several tries each morning, worse by the month; a new cell changed nothing',
    outcomes: { 'told-button': 'several-tries', 'told-course': 'slowly', 'do-coin': 'low' },
    first: ['psu-weak', 'psu-power-good'],
    atLeast: 0.4,
    state: 'open',
  },
  {
    told: 'New build twitches; a standoff too many is found and it runs',
    outcomes: { 'told-button': 'twitch', 'told-course': 'new-build', 'look-loose': 'found-cured' },
    first: ['short'],
    atLeast: 0.95,
    state: 'offered',
  },
  {
    told: 'Restarts over and over with the memory lamp lit',
    outcomes: { 'told-button': 'restarts', 'look-diag': 'memory', 'look-fans': 'all' },
    first: ['memory'],
    atLeast: 0.5,
    state: 'open',
  },
  {
    told: 'From the metal shop: twitches, metal dust inside, starts off load',
    outcomes: { 'told-button': 'twitch', 'look-dust': 'metal', 'm-offload': 'starts' },
    first: ['short'],
    atLeast: 0.6,
    state: 'open',
  },
  {
    told: 'Works, but the drive that was moved is not listed and its plug was loose',
    outcomes: { 'told-button': 'works', 'told-course': 'change', 'look-drive': 'missing', 'look-plugs': 'loose' },
    first: ['wire-drive'],
    atLeast: 0.85,
    state: 'to-prove',
  },
  {
    told: 'Cuts out since the new card, load well inside, 16-pin plug was part home',
    outcomes: { 'told-button': 'cuts-load', 'told-course': 'change', 'c-load': 'under-80', 'look-16pin': 'part-home' },
    first: ['wire-16pin'],
    atLeast: 0.5,
    state: 'open',
  },
  {
    told: 'Nothing, though standby, off-load start and main plug are well and the bridge does nothing',
    outcomes: {
      'told-button': 'nothing',
      'look-standby-light': 'lit',
      'do-bridge': 'same',
      'm-offload': 'starts',
      'm-standby': 'in',
      'do-main': 'home',
    },
    first: ['board'],
    atLeast: 0.28,
    state: 'open',
  },
  {
    told: 'New build, lights only; processor power was loose and that was it',
    outcomes: { 'told-button': 'lights-only', 'told-course': 'new-build', 'do-cpu-power': 'loose-cured' },
    first: ['wire-cpu'],
    atLeast: 0.95,
    state: 'offered',
  },
  {
    told: 'Another card cured it, and the old one brings the fault back',
    outcomes: { 'told-button': 'no-picture', 'do-picture': 'same', 'd-card': 'cured', 'd-card-back': 'returns' },
    first: ['card'],
    atLeast: 0.7,
    state: 'open',
  },
  {
    told: 'Another card cured it, but the old one works as well now',
    outcomes: { 'told-button': 'no-picture', 'do-picture': 'same', 'd-card': 'cured', 'd-card-back': 'stays-away' },
    first: ['slot-card', 'wire-card'],
    atLeast: 0.4,
    state: 'open',
  },
  {
    told: 'The spare cured it and the old supply brings it back',
    outcomes: {
      'told-button': 'cuts-load',
      'told-course': 'slowly',
      'm-rails-work': 'out',
      'd-swap': 'cured',
      'd-swap-back': 'returns',
    },
    first: ['psu-weak'],
    atLeast: 0.8,
    state: 'offered',
  },
  {
    told: 'The spare cured it, but so does the old supply once plugged anew',
    outcomes: { 'told-button': 'twitch', 'told-course': 'change', 'd-swap': 'cured', 'd-swap-back': 'stays-away' },
    first: ['wire-cpu', 'wire-main', 'wire-foreign'],
    atLeast: 0.25,
    state: 'open',
  },
  {
    told: 'A lamp stays dark in the same outlet',
    outcomes: { 'told-button': 'nothing', 'look-outlet': 'dark' },
    first: ['mains-outlet'],
    atLeast: 0.8,
    state: 'open',
  },
  {
    told: 'Blocked with dust, supply breathes, processor hot when it stops',
    outcomes: {
      'told-button': 'cuts-random',
      'told-course': 'slowly',
      'look-dust': 'blocked',
      'm-psu-fan': 'moves',
      'm-cpu-temp': 'hot',
    },
    first: ['cpu-hot'],
    atLeast: 0.7,
    state: 'to-prove',
  },
  {
    told: 'Fine, an upgrade is planned: everything measured is well',
    outcomes: {
      'told-button': 'works',
      'look-drive': 'listed',
      'c-load': 'under-80',
      'm-rails-work': 'in',
      'm-steady': 'steady',
    },
    first: ['well'],
    atLeast: 0.6,
    state: 'open',
  },
  {
    told: 'Trips since the second card, load over the rating, rails steady',
    outcomes: { 'told-button': 'cuts-load', 'told-course': 'change', 'c-load': 'over-100', 'm-steady': 'steady' },
    first: ['psu-undersized'],
    atLeast: 0.75,
    state: 'open',
  },
  {
    told: 'No picture, the board shows marks, spare supply and spare memory change nothing',
    outcomes: { 'told-button': 'no-picture', 'look-board': 'damaged', 'd-swap': 'same', 'd-memory': 'same' },
    first: ['board'],
    atLeast: 0.5,
    state: 'open',
  },
];

describe('more stories from the bench', () => {
  it.each(stories)('$told', ({ outcomes, first, atLeast, state }) => {
    const observations = Object.entries(outcomes).map(([checkId, outcomeId]) => ({ checkId, outcomeId }));
    const ranked = suspects(model, observations);
    expect(ranked.slice(0, first.length).map((suspect) => suspect.faultId)).toEqual(first);
    expect(ranked[0]!.probability).toBeGreaterThan(atLeast);
    expect(conclude(model, observations, ranked, 0.9).state).toBe(state);
    expect(contradictionIn(model, observations)).toBeNull();
    // Each ranking explains itself: something speaks for the leader, or against most of the others.
    const ruledOut = ranked
      .slice(1)
      .filter((suspect) => suspect.evidence.some((item) => item.decibans < 0 && item.why !== '')).length;
    expect(
      ranked[0]!.evidence.some((item) => item.decibans > 0 && item.why !== '') || ruledOut > ranked.length / 2,
    ).toBe(true);
  });
});
