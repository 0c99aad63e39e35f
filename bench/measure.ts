// What Measure says of simulated rails, against the marks it must meet: how often forecasts hold the truth, how often
// "will pass" and "pass" are said of a rail that is outside, how often a coarse tester accuses a healthy supply of
// nothing. npm run bench:measure [-- RAILS]
import { judgeReadings, type Instrument } from '@fairwatt/core';
import { drawRail, errorOf, meterOf, railWorlds, scoreForecasts, seeded, shownBy } from '@fairwatt/core/simulate';

const rails = Number(process.argv[2] ?? 5000);
const share = (value: number) => `${(100 * value).toFixed(1)} %`;
let met = true;
const mark = (holds: boolean) => {
  if (!holds) met = false;
  return holds ? 'met' : 'NOT MET';
};

console.log('| world | forecasts that hold the truth | "will pass" | of them false |\n| --- | ---: | ---: | ---: |');
const sum = { asked: 0, held: 0, passes: 0, falsePasses: 0 };
for (const world of railWorlds) {
  const random = seeded(509);
  const score = scoreForecasts(Array.from({ length: rails }, () => drawRail(world, random)));
  const falseShare = score.passes === 0 ? 0 : score.falsePasses / score.passes;
  console.log(`| ${world} | ${share(score.held / score.asked)} | ${score.passes} | ${share(falseShare)} |`);
  if (falseShare > 0.025) met = false;
  if (world === 'folds-back') continue;
  sum.asked += score.asked;
  sum.held += score.held;
}
const held = sum.held / sum.asked;
console.log(
  `\nAll but folding back together: ${share(held)} (wanted: 93 to 97 %): ${mark(held >= 0.93 && held <= 0.97)}`,
);
const random = seeded(510);
const two = scoreForecasts(
  Array.from({ length: rails }, () => drawRail('straight', random, { noiseVolts: 0.03, readings: 2 })),
);
console.log(
  `Two readings at 30 mV of noise: ${share(two.held / two.asked)} (wanted: at least 93 %): ` +
    mark(two.held / two.asked >= 0.93),
);

/** How often a rail 1 mV below its limit passes, with 30 mV of noise. */
function falsePasses(meter: Instrument, readings: number): number {
  const dice = seeded(511 + readings);
  let passed = 0;
  for (let rail = 0; rail < rails; rail += 1) {
    const truth = 11.399;
    const error = errorOf(meter, truth, dice);
    const values = Array.from({ length: readings }, () => shownBy(meter, truth, error, 0.03, dice));
    const [verdict] = judgeReadings(
      values.map((figure) => ({
        subject: '+12',
        condition: 'work',
        value: { kind: 'figure', figure },
        instrumentId: meter.id,
      })),
      [meter],
      '2.x',
    );
    if (verdict!.word === 'pass' || verdict!.word === 'marginal') passed += 1;
  }
  return passed / rails;
}

const counts = [1, 2, 3, 4, 5, 6, 8, 10];
console.log(
  `\n| "pass" 1 mV below the limit, 30 mV of noise | ` +
    `${counts.map((count) => `${count} read`).join(' | ')} |\n| --- ` +
    `|${' ---: |'.repeat(counts.length)}`,
);
for (const [name, meter] of [
  ['0.015 %, 0.1 mV digits', meterOf(0.015, 3, 0.0001)],
  ['0.05 %, 1 mV digits', meterOf(0.05, 2, 0.001)],
  ['0.5 %, 10 mV digits', meterOf(0.5, 2, 0.01)],
  ['1 %, 100 mV digits', meterOf(1, 1, 0.1)],
] as const) {
  const found = counts.map((count) => falsePasses(meter, count));
  if (found.some((value) => value > 0.05)) met = false;
  console.log(`| ${name} | ${found.map(share).join(' | ')} |`);
}
console.log(`\nWanted: at most 5 % everywhere. All marks ${met ? 'met' : 'NOT met'}.`);
if (!met) process.exitCode = 1;
