import { compileModel, type Model } from '@fairwatt/core';
import { expectedMinutesOf, leastExpectedMinutes, ourOrder, part, seeded } from '@fairwatt/core/simulate';

/** Buys and tries whatever pays, as the optimum does: caution is for a world that is not quite as the model says. */
const uncautious = { sureOfPart: 0, sureOfProved: 0, leastForPart: 0, leastAfterSwap: 0, leastForCure: 0 };
const wantedRatio = 1.1;

/**
 * Our order against dynamic programming on small models drawn from the full one. @returns whether the worst is within
 * 10 %
 */
export function compareWithOptimum(model: Model): boolean {
  const random = seeded(99);
  const sample = (list: readonly string[], count: number) => {
    const left = [...list];
    return Array.from({ length: count }, () => left.splice(Math.floor(random() * left.length), 1)[0]!);
  };
  const checks = model.knowledge.checks.filter((check) => check.after === undefined).map((check) => check.id);
  console.log('\n| small models | median of ours to optimum | worst |\n| --- | ---: | ---: |');
  let worst = 1;
  for (const [count, checkCount, faultCount] of [
    [60, 4, 6],
    [40, 6, 6],
    [6, 8, 5],
  ] as const) {
    const ratios = Array.from({ length: count }, () => {
      const small = compileModel(
        part(
          model,
          sample(
            model.faults.map((fault) => fault.id),
            faultCount,
          ),
          sample(checks, checkCount),
        ),
      );
      return (
        expectedMinutesOf(small, ourOrder(small, { has: [], mayMeterMains: true }, 1.01, uncautious)) /
        leastExpectedMinutes(small)
      );
    }).sort((a, b) => a - b);
    worst = Math.max(worst, ratios.at(-1)!);
    console.log(
      `| ${count} of ${checkCount} checks and ${faultCount} faults | ` +
        `${ratios[ratios.length >> 1]!.toFixed(3)} | ${ratios.at(-1)!.toFixed(3)} |`,
    );
  }
  return worst <= wantedRatio;
}
