import {
  conclude,
  nextStep,
  posterior,
  provingFirst,
  rankChecks,
  suspects,
  type Model,
  type Observation,
} from '@fairwatt/core';
import { bench } from './diagnosis-worlds.ts';

const states: Record<string, Observation[]> = {
  'nothing known': [],
  'dead, standby light dark': [
    { checkId: 'told-button', outcomeId: 'nothing' },
    { checkId: 'look-standby-light', outcomeId: 'dark' },
  ],
  'cuts out under load, slowly worse': [
    { checkId: 'told-button', outcomeId: 'cuts-load' },
    { checkId: 'told-course', outcomeId: 'slowly' },
  ],
};
const wantedMilliseconds = 10;

function millisecondsEach(run: () => void): number {
  for (let count = 0; count < 40; count += 1) run();
  const begun = performance.now();
  for (let count = 0; count < 100; count += 1) run();
  return (performance.now() - begun) / 100;
}

/**
 * Posterior with its evidence and the ranking of all checks over the full model. @returns whether all stay under 10 ms
 */
export function timeRanking(model: Model): boolean {
  console.log(
    '\n| suspects with evidence, next checks and next step | milliseconds | times the bare posterior |\n' +
      '| --- | ---: | ---: |',
  );
  let slowest = 0;
  for (const [name, observations] of Object.entries(states)) {
    const both = millisecondsEach(() => {
      const conclusion = conclude(model, observations, suspects(model, observations), 0.9);
      nextStep(
        { model, observations, probabilities: posterior(model, observations) },
        provingFirst(model, rankChecks(model, observations, bench), conclusion),
        conclusion,
      );
    });
    const bare = millisecondsEach(() => {
      posterior(model, observations);
    });
    slowest = Math.max(slowest, both);
    console.log(`| ${name} | ${both.toFixed(1)} | ${(both / bare).toFixed(0)} |`);
  }
  return slowest < wantedMilliseconds;
}
