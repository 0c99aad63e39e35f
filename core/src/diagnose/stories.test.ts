import { describe, expect, it } from 'vitest';
import {
  conclude,
  nextStep,
  posterior,
  provingFirst,
  rankChecks,
  suspects,
  validateKnowledge,
  type Conclusion,
} from './index.ts';
import { knowledge, model, told } from './knowledge.test-help.ts';

const bench = { has: ['meter', 'tester', 'spare-supply'] as const, mayMeterMains: true };
const rank = (story: Record<string, string>) => suspects(model, told(story));
const order = (story: Record<string, string>) => rank(story).map((suspect) => suspect.faultId);
const share = (story: Record<string, string>, ...faults: string[]) =>
  rank(story)
    .filter((suspect) => faults.includes(suspect.faultId))
    .reduce((sum, suspect) => sum + suspect.probability, 0);
const next = (story: Record<string, string>) => rankChecks(model, told(story), bench).map((check) => check.checkId);
const stepOf = (story: Record<string, string>, conclusion: Conclusion) =>
  nextStep(
    { model, observations: told(story), probabilities: posterior(model, told(story)) },
    provingFirst(model, rankChecks(model, told(story), bench), conclusion),
    conclusion,
  );
const supplyFaults = knowledge.faults.filter((fault) => fault.group === 'supply').map((fault) => fault.id);

describe('the shipped knowledge', () => {
  it('is valid', () => {
    expect(validateKnowledge(knowledge)).toEqual([]);
  });
});

describe('stories from the bench', () => {
  it(
    'a playout machine that cuts out when the encoder works, slowly worse, +12 sags: weak ' +
      'supply by a wide margin over heat',
    () => {
      const story = {
        'told-button': 'cuts-load',
        'told-course': 'slowly',
        'm-rails-off': 'in',
        'm-rails-work': 'out',
        'm-steady': 'sags',
      };
      expect(order(story)[0]).toBe('psu-weak');
      expect(share(story, 'psu-weak')).toBeGreaterThan(12 * share(story, 'cpu-hot'));
    },
  );
  const dead = {
    'told-button': 'nothing',
    'look-standby-light': 'dark',
    'do-outlet': 'same',
    'do-lead': 'same',
    'look-switch': 'right',
    'm-standby': 'absent',
  };
  it('a kiosk with nothing at all, mains proved, no standby: dead supply', () => {
    expect(order(dead)[0]).toBe('psu-no-standby');
    expect(share(dead, 'psu-no-standby')).toBeGreaterThan(0.9);
  });
  it('the same before anyone looked at the rocker: rocker and lead are the next checks', () => {
    expect(next({ 'told-button': 'nothing', 'look-standby-light': 'dark' }).slice(0, 3)).toEqual(
      expect.arrayContaining(['look-switch', 'do-lead']),
    );
    expect(next({ 'told-button': 'nothing', 'look-standby-light': 'dark' })[0]).toBe('look-switch');
  });
  it('a new build, standby lit, bridging starts it: the button or its lead', () => {
    const story = {
      'told-button': 'nothing',
      'told-course': 'new-build',
      'look-standby-light': 'lit',
      'do-bridge': 'starts',
    };
    expect(order(story)[0]).toBe('ctl-button');
    expect(share(story, 'ctl-button', 'ctl-panel')).toBeGreaterThan(0.97);
  });
  it('card dead, picture from the board, card cable home: card seat, then the card, before the supply', () => {
    const ranked = order({
      'told-button': 'no-picture',
      'look-fans': 'all',
      'look-card': 'dead',
      'do-board-picture': 'picture',
      'do-card-power': 'home',
    });
    expect(ranked.slice(0, 2)).toEqual(['slot-card', 'card']);
  });
  it('the tester alone does not convict a supply that works', () => {
    const story = { 'told-button': 'works', 'm-offload': 'starts', 'm-tester': 'one-out' };
    expect(share(story, ...supplyFaults)).toBeLessThan(0.7);
    expect(conclude(model, told(story), rank(story), 0.9).state).toBe('open');
    expect(['m-rails-work', 'm-steady', 'd-swap', 'm-rails-off']).toContain(next(story)[0]);
  });
  it(
    'stops after twenty minutes of rendering, blocked with dust, processor hot: heat first, ' +
      "the supply's heat second",
    () => {
      expect(order({ 'told-button': 'cuts-load', 'look-dust': 'blocked', 'm-cpu-temp': 'hot' }).slice(0, 2)).toEqual([
        'cpu-hot',
        'psu-hot',
      ]);
    },
  );
  it('twitches, same without drives, starts off load alone: a short before the supply', () => {
    const ranked = order({ 'told-button': 'twitch', 'do-extras': 'same', 'm-offload': 'starts' });
    expect(ranked[0]).toBe('short');
  });
  it('trips in games since a new card, peaks beyond the rating, rails fine: undersized, not faulty', () => {
    const story = { 'told-button': 'cuts-load', 'told-course': 'change', 'c-load': 'peaks', 'm-rails-work': 'in' };
    expect(order(story)[0]).toBe('psu-undersized');
    expect(share(story, 'psu-undersized')).toBeGreaterThan(3 * share(story, 'psu-weak'));
  });
  it('a known-good supply changes nothing: every supply fault falls below board and memory', () => {
    const ranked = order({ 'told-button': 'no-picture', 'd-swap': 'same' });
    const last = Math.max(ranked.indexOf('board'), ranked.indexOf('memory'));
    for (const fault of supplyFaults) expect(ranked.indexOf(fault)).toBeGreaterThan(last);
  });
  it('likely enough but not proved: the check that can prove it goes first', () => {
    const story = {
      'told-button': 'cuts-load',
      'told-course': 'slowly',
      'm-rails-off': 'in',
      'm-rails-work': 'out',
      'm-steady': 'sags',
      'm-cpu-temp': 'fine',
      'm-psu-fan': 'moves',
      'c-load': 'under-80',
    };
    const conclusion = conclude(model, told(story), rank(story), 0.75);
    expect(conclusion).toMatchObject({ state: 'to-prove', leaderId: 'psu-weak' });
    expect(provingFirst(model, rankChecks(model, told(story), bench), conclusion)[0]!.checkId).toBe('d-swap');
    expect(
      provingFirst(model, rankChecks(model, told(story), bench), { state: 'untouched' }).map((check) => check.checkId),
    ).toEqual(next(story));
  });
  it('a swap that cures convicts the supply and is offered as the finding', () => {
    const story = { 'told-button': 'cuts-load', 'told-course': 'slowly', 'm-rails-work': 'out', 'd-swap': 'cured' };
    expect(conclude(model, told(story), rank(story), 0.9)).toMatchObject({
      state: 'offered',
      leaderId: 'psu-weak',
      cureId: 'replace-supply',
    });
  });
  it('a rocker that was off and cured ends the job', () => {
    const story = { 'told-button': 'nothing', 'look-switch': 'off-cured' };
    expect(conclude(model, told(story), rank(story), 0.9)).toMatchObject({
      state: 'offered',
      leaderId: 'mains-switch',
    });
  });
  it('heat marks in the 16-pin plug lead the search', () => {
    expect(order({ 'told-button': 'cuts-load', 'look-16pin': 'heat' })[0]).toBe('wire-16pin');
  });
  it('a machine that starts and lists its drives is not this job', () => {
    const story = {
      'told-button': 'restarts',
      'look-drive': 'listed',
      'look-diag': 'boot',
      'm-rails-off': 'in',
      'd-swap': 'same',
    };
    expect(order(story)[0]).toBe('os-drive');
  });

  const first = (story: Record<string, string>) => order(story)[0];
  it('a brand-new build that runs without picture, processor lamp lit: the processor plug before the processor', () => {
    const ranked = order({ 'told-button': 'no-picture', 'told-course': 'new-build', 'look-diag': 'processor' });
    expect(ranked[0]).toBe('wire-cpu');
    expect(ranked.indexOf('cpu')).toBeGreaterThan(0);
  });
  it('memory lamp lit and starts with one stick: memory, proved', () => {
    const story = { 'told-button': 'no-picture', 'look-diag': 'memory', 'do-memory': 'cured' };
    expect(conclude(model, told(story), rank(story), 0.9)).toMatchObject({ state: 'offered', leaderId: 'memory' });
  });
  it('starts after several tries, slowly worse, power-good late: the power-good signal', () => {
    expect(first({ 'told-button': 'several-tries', 'told-course': 'slowly', 'm-pg': 'late' })).toBe('psu-power-good');
  });
  it('screen moved to another desk, dark, picture in the other output: the picture cable, proved', () => {
    const story = { 'told-button': 'no-picture', 'told-course': 'change', 'do-picture': 'cured' };
    expect(conclude(model, told(story), rank(story), 0.9)).toMatchObject({ state: 'offered', leaderId: 'picture' });
  });
  it('everything runs, a drive is not listed: drive power before drive or system', () => {
    expect(first({ 'told-button': 'works', 'told-course': 'change', 'look-drive': 'missing' })).toBe('wire-drive');
  });
  it('twitches since a cable was added, burnt smell, a cable that does not belong: the foreign cable', () => {
    expect(
      first({ 'told-button': 'twitch', 'told-course': 'change', 'told-smell': 'burnt', 'look-harness': 'foreign' }),
    ).toBe('wire-foreign');
  });
  it('the lead was swapped and it runs: the lead, proved', () => {
    const story = { 'told-button': 'nothing', 'look-standby-light': 'dark', 'do-lead': 'cured' };
    expect(conclude(model, told(story), rank(story), 0.9)).toMatchObject({ state: 'offered', leaderId: 'mains-lead' });
  });
  it('standby there, off-load start gives nothing: main outputs do not start', () => {
    expect(first({ 'told-button': 'nothing', 'm-standby': 'in', 'm-offload': 'nothing' })).toBe('psu-no-start');
  });
  it('cuts out at random, supply fan stands still, blocked with dust: the supply overheats', () => {
    expect(
      first({ 'told-button': 'cuts-random', 'look-dust': 'blocked', 'm-psu-fan': 'stopped', 'm-cpu-temp': 'fine' }),
    ).toBe('psu-hot');
  });
  it('new card, each inlet on its own cable cures it: the shared cable, proved', () => {
    const story = { 'told-button': 'cuts-load', 'told-course': 'change', 'do-second-cable': 'cured' };
    expect(first(story)).toBe('wire-shared');
  });
  it('restarts over and over, cold cell below 2.8 V replaced and cured: the coin cell', () => {
    expect(first({ 'told-button': 'restarts', 'told-course': 'slowly', 'do-coin': 'cured' })).toBe('coin-cell');
  });
  it('no picture, a swap, the memory and the card seat change nothing: the board leads', () => {
    expect(
      first({
        'told-button': 'no-picture',
        'd-swap': 'same',
        'do-memory': 'same',
        'do-board-picture': 'none',
        'do-bare': 'same',
        'do-cpu-power': 'home',
        'do-main': 'home',
        'do-picture': 'same',
      }),
    ).toBe('board');
  });
  it('a rail out at idle by the meter: the rail before the weak supply', () => {
    expect(first({ 'told-button': 'restarts', 'm-rails-off': 'out' })).toBe('psu-rail-out');
  });
  it('leads on the wrong pins moved and cured in a new build: the front panel, proved', () => {
    const story = {
      'told-button': 'nothing',
      'told-course': 'new-build',
      'look-standby-light': 'lit',
      'do-panel': 'moved-cured',
    };
    expect(conclude(model, told(story), rank(story), 0.9)).toMatchObject({ state: 'offered', leaderId: 'ctl-panel' });
  });
  it('a card that is dead, reseated and cured: the seat, not the card', () => {
    const story = { 'told-button': 'no-picture', 'look-card': 'dead', 'do-card-seat': 'loose-cured' };
    expect(conclude(model, told(story), rank(story), 0.9)).toMatchObject({ state: 'offered', leaderId: 'slot-card' });
  });
  it('dead, but nobody has a spare, a meter or a tester: only what can be done by hand and eye is offered', () => {
    const offered = rankChecks(model, told({ 'told-button': 'nothing' }), { has: [], mayMeterMains: true });
    expect(offered.length).toBeGreaterThan(5);
    for (const check of offered) expect(check.needs).toEqual([]);
  });
  it('heat marks leave nothing to check with power on: the cure is the next step', () => {
    const story = {
      'told-button': 'cuts-load',
      'told-smell': 'burnt',
      'look-plugs': 'discoloured',
      'look-16pin': 'heat',
    };
    const conclusion = conclude(model, told(story), rank(story), 0.9);
    expect(stepOf(story, conclusion)).toEqual({ do: 'cure', faultId: 'wire-16pin' });
  });
  it('what can still be proved is proved before anything is repaired, and an open search goes on', () => {
    const step = (story: Record<string, string>, stop: number) =>
      stepOf(story, conclude(model, told(story), rank(story), stop));
    expect(
      step({ 'told-button': 'cuts-load', 'told-course': 'slowly', 'm-rails-work': 'out', 'm-steady': 'sags' }, 0.5),
    ).toEqual({ do: 'check', checkId: 'd-swap' });
    expect(step({ 'told-button': 'nothing' }, 0.9).do).toBe('check');
    expect(
      nextStep({ model, observations: [], probabilities: posterior(model, []) }, [], { state: 'untouched' }),
    ).toEqual({ do: 'nothing' });
  });
  it('answers nobody could give change nothing', () => {
    const story = { 'told-button': 'cuts-load', 'told-course': 'slowly' };
    expect(
      rank({ ...story, 'look-dust': 'unknown', 'told-smell': 'unknown', 'm-cpu-temp': 'unknown' }).map((suspect) => [
        suspect.faultId,
        suspect.probability,
      ]),
    ).toEqual(rank(story).map((suspect) => [suspect.faultId, suspect.probability]));
  });
});
