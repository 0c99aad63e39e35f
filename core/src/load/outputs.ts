import { boundToBe } from '../bound-to-be.ts';
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
export type OutputMoment = (typeof outputMoments)[number];
type ByMoment = Readonly<Record<OutputMoment, number>>;

const byMoment = (figure: (moment: OutputMoment) => number): Record<OutputMoment, number> => ({
  lasting: figure('lasting'),
  'spin-up': figure('spin-up'),
  '1000': figure('1000'),
  '100': figure('100'),
});

/** A bin of the spread: one output, or a limit over some of them, with what else stands on it. */
interface Bin {
  readonly code: SpreadFigure['code'];
  readonly subject: string;
  readonly unit: 'A' | 'W';
  readonly outputs: readonly Output[];
  /** Amps that the bin carries; watts count as amps at 12 V. */
  readonly limits: ByMoment;
  /** What other rails take of it, in the same amps. */
  readonly others: ByMoment;
}

type Output = SupplyLabel['rails'][number];

/** A load and the outputs that it may hang on, at least one. */
interface ToHang {
  readonly load: HungLoad;
  readonly choices: readonly Output[];
}

/** How many ways are tried before the search for a kinder one is given up. */
const mostSteps = 6_000;
/** After so many a way that overloads nothing is kind enough. */
const enoughSteps = 600;
/** A way that is this near to the kindest that could be thought of is taken for it. */
const nearEnough = 1.0005;
/** Sums of shares may come out a hair above a limit that they meet exactly. */
const rounding = 1e-9;

function binsOf(label: SupplyLabel, demand: Demand, outputs: readonly Output[]): readonly Bin[] {
  const least = byMoment((moment) => owedAt(label, moment).least);
  const single = outputs.map((output): Bin => ({
    code: 'twelve-output',
    subject: output.label,
    unit: 'A',
    outputs: [output],
    limits: byMoment((moment) => output.amps * least[moment]),
    others: byMoment(() => 0),
  }));
  const joint = label.combined.flatMap((limit): Bin[] => {
    const named = outputs.filter((output) => limit.labels.includes(output.label));
    // One over all of +12 is judged by the sum, one over none does not depend on the spread.
    if (named.length === 0 || named.length === outputs.length) return [];
    const rails = loadRails.filter(
      (rail) => rail !== '+12' && label.rails.some((one) => one.rail === rail && limit.labels.includes(one.label)),
    );
    return [
      {
        code: 'combined',
        subject: limit.labels.join(' + '),
        unit: 'W',
        outputs: named,
        limits: byMoment((moment) => (limit.watts * least[moment]) / 12),
        others: byMoment((moment) => rails.reduce((sum, rail) => sum + demand.at[moment][rail], 0) / 12),
      },
    ];
  });
  return [...single, ...joint];
}

/** The outputs that a load may hang on: the one that is known, those that feed its family, else all. */
function choicesOf(load: HungLoad, outputs: readonly Output[]): readonly Output[] {
  const known = outputs.find(({ label }) => label === load.output);
  if (known !== undefined) return [known];
  const fed = outputs.filter(({ feeds }) => feeds?.includes(load.family) === true);
  return fed.length > 0 ? fed : outputs;
}

const ratioOf = (amps: number, limit: number) => (amps <= rounding ? 0 : limit > 0 ? amps / limit : Infinity);

/** What a bin carries at one moment with these loads. */
function ampsIn({ others }: Bin, moment: OutputMoment, loads: readonly HungLoad[]): number {
  const start = moment === 'spin-up' ? Math.max(0, ...loads.map(({ startAmps }) => startAmps)) : 0;
  return loads.reduce((sum, { amps }) => sum + amps[moment], start + others[moment]);
}

function figuresOf(label: SupplyLabel, bin: Bin, loads: readonly HungLoad[]): readonly SpreadFigure[] {
  const { code, subject, unit } = bin;
  const each = unit === 'W' ? 12 : 1;
  return outputMoments.map((moment) => {
    const { promised, least } = owedAt(label, moment);
    const limit = (bin.limits[moment] * each) / least;
    const figure = ampsIn(bin, moment, loads) * each;
    return { code, subject, moment, unit, figure, promised: limit * promised, least: limit * least };
  });
}

/** How full a bin is at its fullest moment with all that could hang on it. */
function worstOf(bin: Bin, hung: readonly ToHang[]): number {
  const possible = hung.filter(({ choices }) => choices.some((output) => bin.outputs.includes(output)));
  const loads = possible.map(({ load }) => load);
  return Math.max(...outputMoments.map((moment) => ratioOf(ampsIn(bin, moment, loads), bin.limits[moment])));
}

/**
 * Shares the loads over the +12 outputs so that the fullest limit at any moment is as little full as can be: every
 * output's own, and each limit over some of the outputs. Exact by depth-first search with a bound, loads and outputs
 * that are alike taken in order, to half a thousandth; where there are so many loads that the search is given up, this
 * is the kindest way that was seen. The same input gives the same way. Null with fewer than two +12 outputs or nothing
 * hung.
 */
export function spreadOverOutputs(label: SupplyLabel, demand: Demand, loads: readonly HungLoad[]): OutputSpread | null {
  const outputs = label.rails.filter((rail) => rail.rail === '+12');
  if (outputs.length < 2 || loads.length === 0) return null;
  const hung = loads.map((load): ToHang => ({ load, choices: choicesOf(load, outputs) }));
  const bins = binsOf(label, demand, outputs);
  const { at, proved } = kindestWay(hung, bins, outputs);
  const on = (which: readonly Output[]) =>
    hung.filter((one) => which.some((output) => output === at.get(one))).map(({ load }) => load);
  const figures = bins.flatMap((bin) => figuresOf(label, bin, on(bin.outputs)));
  const known = hung.every(({ choices }) => choices.length === 1);
  const ratios = known
    ? figures.map(({ figure, least }) => ratioOf(figure, least))
    : bins.map((bin) => worstOf(bin, hung));
  return {
    figures,
    known,
    proved,
    worstRatio: Math.max(0, ...ratios),
    outputs: outputs.map((output): OutputLoad => {
      const own = on([output]);
      return {
        label: output.label,
        amps: own.reduce((sum, load) => sum + load.amps.lasting, 0),
        limitAmps: output.amps,
        carries: own.map((load) => load.name),
      };
    }),
  };
}

/** A bin as it is filled. */
class Filled {
  start = 0;
  readonly bin: Bin;
  private readonly amps: Record<OutputMoment, number>;

  constructor(bin: Bin) {
    this.bin = bin;
    this.amps = { ...bin.others };
  }

  add({ amps }: HungLoad, sign: 1 | -1): void {
    for (const moment of outputMoments) this.amps[moment] += sign * amps[moment];
  }

  /** How full it is at its fullest moment. */
  get ratio(): number {
    let ratio = 0;
    for (const moment of outputMoments) {
      const amps = this.amps[moment] + (moment === 'spin-up' ? this.start : 0);
      ratio = Math.max(ratio, ratioOf(amps, this.bin.limits[moment]));
    }
    return ratio;
  }
}

/** An output as loads are hung on it. */
interface Place {
  readonly output: Output;
  /** Outputs of one kind may stand for each other while they are empty. */
  readonly kind: string;
  /** The limits that it counts against. */
  readonly bins: readonly Filled[];
  count: number;
}

/** A load to hang, in the order of the search. */
interface Next {
  readonly hung: ToHang;
  readonly places: readonly Place[];
  /** The one before, where that is the same load with the same choices: this one goes to the same output or later. */
  readonly twin: Next | null;
  at: Place | null;
}

const isSameLoad = (one: ToHang, other: ToHang): boolean =>
  one.load.startAmps === other.load.startAmps &&
  outputMoments.every((moment) => one.load.amps[moment] === other.load.amps[moment]) &&
  one.choices.length === other.choices.length &&
  one.choices.every((output, index) => output === other.choices[index]);

/**
 * Outputs that stand in the same bins with the same limits and feed the same loads may stand for each other while
 * empty.
 */
function placesOf(hung: readonly ToHang[], bins: readonly Bin[], outputs: readonly Output[]): readonly Place[] {
  const filled = bins.map((bin) => new Filled(bin));
  return outputs.map((output) => {
    const own = filled.filter(({ bin }) => bin.outputs.includes(output));
    const joint = own.flatMap(({ bin }) => (bin.code === 'combined' ? [bins.indexOf(bin)] : []));
    const feeds = hung.map(({ choices }) => choices.includes(output));
    return { output, kind: [output.amps, ...joint, ...feeds].join(), bins: own, count: 0 };
  });
}

/** The loads in the order of the search: those with fewest choices first, then the largest. */
function inOrder(hung: readonly ToHang[], places: readonly Place[]): readonly Next[] {
  const largest = ({ load }: ToHang) => Math.max(...outputMoments.map((moment) => load.amps[moment]));
  const sorted = [...hung].sort((a, b) => a.choices.length - b.choices.length || largest(b) - largest(a));
  const order: Next[] = [];
  for (const one of sorted) {
    const before = order.at(-1);
    order.push({
      hung: one,
      places: places.filter(({ output }) => one.choices.includes(output)),
      twin: before !== undefined && isSameLoad(before.hung, one) ? before : null,
      at: null,
    });
  }
  return order;
}

/** Depth-first search for the way with the least full fullest bin. */
class KindestWay {
  steps = 0;
  best: { readonly ratio: number; readonly at: ReadonlyMap<ToHang, Output> } | null = null;
  private readonly order: readonly Next[];
  /** No way is kinder than everything spread evenly. */
  private readonly bound: number;

  constructor(order: readonly Next[], bound: number) {
    this.order = order;
    this.bound = bound;
  }

  search(depth: number, ratio: number): void {
    if (this.best !== null && (ratio >= this.best.ratio - rounding || this.isSettled(this.best.ratio))) return;
    this.steps += 1;
    const next = this.order[depth];
    if (next === undefined) {
      this.best = {
        ratio,
        at: new Map(this.order.flatMap(({ hung, at }) => (at === null ? [] : [[hung, at.output]]))),
      };
      return;
    }
    const ways = this.placesFor(next)
      .map((place, index) => ({ place, index, worst: fullestWith(next.hung.load, place, ratio) }))
      .sort((a, b) => a.worst - b.worst || a.index - b.index);
    for (const { place, worst } of ways) this.hang(depth, next, place, worst);
  }

  /** Whether a way of this ratio is kind enough, or nothing kinder could change what is said. */
  private isSettled(ratio: number): boolean {
    return (
      ratio <= this.bound * nearEnough + rounding ||
      this.steps > mostSteps ||
      (this.steps > enoughSteps && (ratio <= 1 || this.bound > 1))
    );
  }

  /** Outputs to try: from its twin's on, and of empty ones that are alike the first. */
  private placesFor({ places, twin }: Next): readonly Place[] {
    const from = twin?.at == null ? 0 : places.indexOf(twin.at);
    const emptyTried = new Set<string>();
    return places.slice(from).filter(({ count, kind }) => {
      if (count > 0) return true;
      if (emptyTried.has(kind)) return false;
      emptyTried.add(kind);
      return true;
    });
  }

  /** Hangs a load, goes on from there, and takes it off again. */
  private hang(depth: number, next: Next, place: Place, worst: number): void {
    const { load } = next.hung;
    const saved = place.bins.map(({ start }) => start);
    put(load, place, 1);
    for (const bin of place.bins) bin.start = Math.max(bin.start, load.startAmps);
    next.at = place;
    this.search(depth + 1, Math.max(worst, ...place.bins.map(({ ratio }) => ratio)));
    put(load, place, -1);
    for (const [index, bin] of place.bins.entries()) bin.start = saved[index] ?? 0;
  }
}

function put(load: HungLoad, place: Place, sign: 1 | -1): void {
  place.count += sign;
  for (const bin of place.bins) bin.add(load, sign);
}

/** The fullest limit with a load on an output, its start left out. */
function fullestWith(load: HungLoad, place: Place, ratio: number): number {
  put(load, place, 1);
  const worst = Math.max(ratio, ...place.bins.map((bin) => bin.ratio));
  put(load, place, -1);
  return worst;
}

/** How full all outputs together are at their fullest moment. */
function spreadEvenly(hung: readonly ToHang[], bins: readonly Bin[]): number {
  const single = bins.filter(({ code }) => code === 'twelve-output');
  return Math.max(
    ...outputMoments.map((moment) =>
      ratioOf(
        hung.reduce((sum, { load }) => sum + load.amps[moment], 0),
        single.reduce((sum, { limits }) => sum + limits[moment], 0),
      ),
    ),
  );
}

/** The way with the least full fullest bin: the output of each load. */
function kindestWay(
  hung: readonly ToHang[],
  bins: readonly Bin[],
  outputs: readonly Output[],
): { readonly at: ReadonlyMap<ToHang, Output>; readonly proved: boolean } {
  const bound = spreadEvenly(hung, bins);
  const way = new KindestWay(inOrder(hung, placesOf(hung, bins, outputs)), bound);
  way.search(0, 0);
  const { best, steps } = way;
  if (best === null) throw new Error('no way although every load has an output');
  // Beyond every limit even when spread evenly, or within all of them: more search would change no verdict.
  return { at: best.at, proved: steps <= mostSteps || bound > 1 || best.ratio <= 1 };
}

/** What hangs on +12 inlet by inlet, for a supply whose cables are not known. */
export function hungByInlet(parts: readonly MachinePart[], { staggered = false } = {}): HungLoad[] {
  const inlets = new Map(parts.flatMap((part) => part.inlets.map((inlet) => [inlet.id, inlet])));
  return inletDraws(parts, { staggered }).flatMap((draw): HungLoad[] => {
    const inlet = boundToBe(inlets.get(draw.inletId), `inlet ${draw.inletId}`);
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
