import { inletFamily, type CableFamily } from '../standards/index.ts';
import type { MachinePart, SupplyLabel } from '../machine/index.ts';
import type { Demand } from './demand.ts';
import { loadRails, owedAt, type Moment } from './moments.ts';
import { inletDraws } from './routes.ts';

/** Something that hangs on +12: a cable, or an inlet where the cable is not known. */
export interface HungLoad {
  readonly name: string;
  readonly family: CableFamily;
  /** Amps on +12 at each moment. */
  readonly amps: Readonly<Record<Moment, number>>;
  /** Where drives start one after the other: amps that one start adds here; on an output only the largest counts. */
  readonly startAmps: number;
  /** The output it certainly hangs on; null when only its family is known. */
  readonly output: string | null;
}

/** One +12 output with what hangs on it. */
export interface OutputLoad {
  readonly label: string;
  /** Lasting amps. */
  readonly amps: number;
  readonly limitAmps: number;
  readonly carries: readonly string[];
}

/** One limit that some +12 outputs share, or a single output's own, at one moment. */
export interface SpreadFigure {
  readonly code: 'twelve-output' | 'combined';
  readonly subject: string;
  readonly moment: Moment;
  readonly unit: 'A' | 'W';
  readonly figure: number;
  /** The label's limit at this moment: what its guide promises, and what is surely too much. */
  readonly promised: number;
  readonly least: number;
}

/** How the +12 load is shared over several outputs. */
export interface OutputSpread {
  readonly outputs: readonly OutputLoad[];
  readonly figures: readonly SpreadFigure[];
  /** Whether the label says what hangs where; else this is the kindest way. */
  readonly known: boolean;
  /** That no kinder way would change the verdict; false where there are so many loads that the search was given up. */
  readonly proved: boolean;
  /** The fullest limit in the unkindest way; equal to the kindest where everything is known. */
  readonly worstRatio: number;
}

/** The moments that an output's own protection answers to: shorter peaks pass below its delay and decide nothing. */
export const outputMoments = ['lasting', 'spin-up', '1000', '100'] as const satisfies readonly Moment[];

/** A bin of the spread: one output, or a limit over some of them, with what else stands on it. */
interface Bin {
  readonly code: SpreadFigure['code'];
  readonly subject: string;
  readonly unit: 'A' | 'W';
  readonly outputs: readonly number[];
  /** Amps that the bin carries, by moment; watts count as amps at 12 V. */
  readonly limits: readonly number[];
  /** What other rails take of it, by moment, in the same amps. */
  readonly others: readonly number[];
}

/** How many ways are tried before the search for a kinder one is given up. */
const mostSteps = 6_000;
/** After so many a way that overloads nothing is kind enough. */
const enoughSteps = 600;
/** A way that is this near to the kindest that could be thought of is taken for it. */
const nearEnough = 1.0005;
/** Sums of shares may come out a hair above a limit that they meet exactly. */
const rounding = 1e-9;

function binsOf(label: SupplyLabel, demand: Demand, outputs: readonly { label: string; amps: number }[]): Bin[] {
  const shares = outputMoments.map((moment) => owedAt(label, moment).least);
  const single = outputs.map((output, index): Bin => ({
    code: 'twelve-output',
    subject: output.label,
    unit: 'A',
    outputs: [index],
    limits: shares.map((share) => output.amps * share),
    others: shares.map(() => 0),
  }));
  const joint = label.combined.flatMap((limit): Bin[] => {
    const named = outputs.flatMap((output, index) => (limit.labels.includes(output.label) ? [index] : []));
    // One over all of +12 is judged by the sum, one over none does not depend on the spread.
    if (named.length === 0 || named.length === outputs.length) return [];
    const rails = loadRails.filter(
      (rail) => rail !== '+12' && label.rails.some((one) => one.rail === rail && limit.labels.includes(one.label)),
    );
    const others = outputMoments.map((moment) => rails.reduce((sum, rail) => sum + demand.at[moment][rail], 0) / 12);
    return [
      {
        code: 'combined',
        subject: limit.labels.join(' + '),
        unit: 'W',
        outputs: named,
        limits: shares.map((share) => (limit.watts * share) / 12),
        others,
      },
    ];
  });
  return [...single, ...joint];
}

const ratioOf = (amps: number, limit: number) => (amps <= rounding ? 0 : limit > 0 ? amps / limit : Infinity);

/**
 * Shares the loads over the +12 outputs so that the fullest limit at any moment is as little full as can be: every
 * output's own, and each limit over some of the outputs. Exact by depth-first search with a bound, loads and outputs
 * that are alike taken in order, to half a thousandth; where there are so many loads that the search is given up, this
 * is the kindest way that was seen. The same input gives the same way. Null with fewer than two +12 outputs or nothing
 * hung.
 */
export function spreadOverOutputs(label: SupplyLabel, demand: Demand, hung: readonly HungLoad[]): OutputSpread | null {
  const outputs = label.rails.filter((rail) => rail.rail === '+12');
  if (outputs.length < 2 || hung.length === 0) return null;
  const choices = hung.map((load): number[] => {
    const pinned = outputs.findIndex((output) => output.label === load.output);
    if (pinned >= 0) return [pinned];
    const fed = outputs.flatMap((output, index) => ((output.feeds ?? []).includes(load.family) ? [index] : []));
    return fed.length > 0 ? fed : outputs.map((_, index) => index);
  });
  const bins = binsOf(label, demand, outputs);
  const { at, proved } = kindestWay(hung, choices, bins, outputs);
  const known = choices.every((list) => list.length === 1);
  const ampsOf = (bin: Bin, moment: number, loads: readonly HungLoad[]) => {
    const name = outputMoments[moment]!;
    const start = name === 'spin-up' ? Math.max(0, ...loads.map((load) => load.startAmps)) : 0;
    return loads.reduce((sum, load) => sum + load.amps[name], start + bin.others[moment]!);
  };
  const figures = bins.flatMap((bin) =>
    outputMoments.map((moment, index): SpreadFigure => {
      const amps = ampsOf(
        bin,
        index,
        hung.filter((_, item) => bin.outputs.includes(at[item]!)),
      );
      const { promised, least } = owedAt(label, moment);
      const unit = bin.unit === 'W' ? 12 : 1;
      const limit = (bin.limits[index]! * unit) / least;
      return {
        code: bin.code,
        subject: bin.subject,
        moment,
        unit: bin.unit,
        figure: amps * unit,
        promised: limit * promised,
        least: limit * least,
      };
    }),
  );
  const full = (figure: SpreadFigure) => ratioOf(figure.figure, figure.least);
  const worst = bins.map((bin) => {
    const possible = hung.filter((_, item) => choices[item]!.some((output) => bin.outputs.includes(output)));
    return Math.max(...outputMoments.map((_, index) => ratioOf(ampsOf(bin, index, possible), bin.limits[index]!)));
  });
  return {
    figures,
    known,
    proved,
    worstRatio: known ? Math.max(0, ...figures.map(full)) : Math.max(0, ...worst),
    outputs: outputs.map((output, index): OutputLoad => {
      const own = hung.filter((_, item) => at[item] === index);
      return {
        label: output.label,
        amps: own.reduce((sum, load) => sum + load.amps.lasting, 0),
        limitAmps: output.amps,
        carries: own.map((load) => load.name),
      };
    }),
  };
}

/** The way with the least full fullest bin: the output of each load. */
function kindestWay(
  hung: readonly HungLoad[],
  choices: readonly (readonly number[])[],
  bins: readonly Bin[],
  outputs: readonly { readonly amps: number }[],
): { readonly at: readonly number[]; readonly proved: boolean } {
  const vectors = hung.map((load) => outputMoments.map((moment) => load.amps[moment]));
  const largest = vectors.map((vector) => Math.max(...vector));
  const order = hung
    .map((_, index) => index)
    .sort((a, b) => choices[a]!.length - choices[b]!.length || largest[b]! - largest[a]! || a - b);
  const sameLoad = (a: number, b: number) =>
    hung[a]!.startAmps === hung[b]!.startAmps &&
    vectors[a]!.every((amps, at) => amps === vectors[b]![at]) &&
    choices[a]!.join() === choices[b]!.join();
  // Outputs that stand in the same bins with the same limits and feed the same loads may stand for each other while
  // empty.
  const kind = outputs.map((output, index) =>
    [
      output.amps,
      ...bins.flatMap((bin, at) => (bin.code === 'combined' && bin.outputs.includes(index) ? [at] : [])),
      ...choices.map((list) => list.includes(index)),
    ].join(),
  );
  const binsAt = outputs.map((_, index) => bins.flatMap((bin, at) => (bin.outputs.includes(index) ? [at] : [])));
  const amps = bins.map((bin) => [...bin.others]);
  const starts = bins.map(() => 0);
  const count = outputs.map(() => 0);
  const at: number[] = hung.map(() => 0);
  const spinUp = outputMoments.indexOf('spin-up');
  const fullness = (bin: number) =>
    Math.max(
      ...outputMoments.map((_, moment) =>
        ratioOf(amps[bin]![moment]! + (moment === spinUp ? starts[bin]! : 0), bins[bin]!.limits[moment]!),
      ),
    );
  // No way is kinder than everything spread evenly.
  const bound = Math.max(
    ...outputMoments.map((_, moment) =>
      ratioOf(
        vectors.reduce((sum, vector) => sum + vector[moment]!, 0),
        outputs.reduce((sum, __, output) => sum + bins[output]!.limits[moment]!, 0),
      ),
    ),
  );
  let best: { ratio: number; at: number[] } | null = null;
  let steps = 0;

  /** Whether a way of this ratio is kind enough, or nothing kinder could change what is said. */
  const settled = (ratio: number) =>
    ratio <= bound * nearEnough + rounding || steps > mostSteps || (steps > enoughSteps && (ratio <= 1 || bound > 1));

  function search(depth: number, ratio: number): void {
    if (best !== null && (ratio >= best.ratio - rounding || settled(best.ratio))) return;
    steps += 1;
    const item = order[depth];
    if (item === undefined) {
      best = { ratio, at: [...at] };
      return;
    }
    const before = order[depth - 1];
    const from = before !== undefined && sameLoad(before, item) ? choices[item]!.indexOf(at[before]!) : 0;
    const emptyTried = new Set<string>();
    const ways = choices[item]!.slice(from)
      .filter((output) => count[output]! > 0 || (!emptyTried.has(kind[output]!) && emptyTried.add(kind[output]!)))
      .map((output) => {
        put(item, output, 1);
        const worst = Math.max(ratio, ...binsAt[output]!.map(fullness));
        put(item, output, -1);
        return { output, worst };
      })
      .sort((a, b) => a.worst - b.worst || a.output - b.output);
    for (const { output, worst } of ways) {
      const saved = binsAt[output]!.map((bin) => starts[bin]!);
      put(item, output, 1);
      binsAt[output]!.forEach((bin) => (starts[bin] = Math.max(starts[bin]!, hung[item]!.startAmps)));
      at[item] = output;
      search(depth + 1, Math.max(worst, ...binsAt[output]!.map(fullness)));
      put(item, output, -1);
      binsAt[output]!.forEach((bin, index) => (starts[bin] = saved[index]!));
    }
  }

  function put(item: number, output: number, sign: 1 | -1): void {
    count[output] = count[output]! + sign;
    for (const bin of binsAt[output]!)
      vectors[item]!.forEach((value, moment) => (amps[bin]![moment] = amps[bin]![moment]! + sign * value));
  }

  search(0, 0);
  const found = best as { ratio: number; at: number[] } | null;
  // Beyond every limit even when spread evenly, or within all of them: more search would change no verdict.
  const certain = steps <= mostSteps || bound > 1 || (found !== null && found.ratio <= 1);
  return { at: found?.at ?? choices.map((list) => list[0]!), proved: certain };
}

/** What hangs on +12 inlet by inlet, for a supply whose cables are not known. */
export function hungByInlet(parts: readonly MachinePart[], { staggered = false } = {}): HungLoad[] {
  const inlets = new Map(parts.flatMap((part) => part.inlets.map((inlet) => [inlet.id, inlet])));
  return inletDraws(parts, { staggered }).flatMap((draw): HungLoad[] => {
    const inlet = inlets.get(draw.inletId)!;
    const load = {
      name: inlet.label,
      family: inletFamily(inlet.kind),
      output: null,
      startAmps: staggered ? draw.starts['+12'] / 12 : 0,
      amps: twelveAmps(draw.at),
    };
    return Object.values(load.amps).some((amps) => amps > 0) || load.startAmps > 0 ? [load] : [];
  });
}

/** Amps on +12 at each moment. */
export function twelveAmps(at: Demand['at']): Record<Moment, number> {
  return Object.fromEntries(Object.entries(at).map(([moment, watts]) => [moment, watts['+12'] / 12])) as Record<
    Moment,
    number
  >;
}
