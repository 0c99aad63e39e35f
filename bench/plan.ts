import { performance } from 'node:perf_hooks';
import highsLoader, { type Highs } from 'highs';
import { planCables } from '@fairwatt/core';
import { seeded } from '@fairwatt/core/simulate';
import { planProgramme, randomProblem } from '../core/src/cable/plan-problem.test-help.ts';

/** The cable plan on random machines and kits, against a call of an exact solver on each; in milliseconds. */
export async function timePlans(count = 200): Promise<{
  readonly count: number;
  readonly median: number;
  readonly worst: number;
  readonly solverMedian: number;
  readonly ratio: number;
}> {
  const highs = await (highsLoader as unknown as () => Promise<Highs>)();
  const random = seeded(20_261_125);
  const problems = Array.from({ length: count }, () => randomProblem(random));
  for (const { kit, inlets, rules } of problems) planCables(kit, inlets, rules);
  const once = (work: () => void) => {
    const begun = performance.now();
    work();
    return performance.now() - begun;
  };
  // The middle of three, on both sides, so that a pause of the machine decides nothing.
  const time = (work: () => void) => [once(work), once(work), once(work)].sort((a, b) => a - b)[1]!;
  const ours = problems.map(({ kit, inlets, rules }) =>
    time(() => {
      planCables(kit, inlets, rules);
    }),
  );
  const solver = problems.map((problem) => {
    const { lp } = planProgramme(problem);
    return time(() => {
      highs.solve(lp, { mip_rel_gap: 0, mip_abs_gap: 0.5 });
    });
  });
  const median = (list: readonly number[]) => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)]!;
  const sum = (list: readonly number[]) => list.reduce((total, value) => total + value, 0);
  return {
    count,
    median: median(ours),
    worst: Math.max(...ours),
    solverMedian: median(solver),
    ratio: sum(solver) / sum(ours),
  };
}
