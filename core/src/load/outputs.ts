import type { CableFamily } from '../standards/index.ts';
import { partClass, type MachinePart, type SupplyLabel } from '../machine/index.ts';
import { inletFamily } from '../standards/index.ts';
import { inletLoads } from './demand.ts';

/** Something that hangs on +12: a cable, or an inlet where the cable is not known. */
export interface HungLoad {
  readonly name: string;
  readonly family: CableFamily;
  readonly amps12: number;
  /** The output it certainly hangs on; null when only its family is known. */
  readonly output: string | null;
}

/** One +12 output with what hangs on it. */
export interface OutputLoad {
  readonly label: string;
  readonly amps: number;
  readonly limitAmps: number;
  readonly carries: readonly string[];
}

/** How the +12 load is shared over several outputs. */
export interface OutputSpread {
  readonly outputs: readonly OutputLoad[];
  /** Whether the label says what hangs where; else this is the kindest way. */
  readonly known: boolean;
  /** The fullest output over its limit in the unkindest way; equal to the kindest where everything is known. */
  readonly worstRatio: number;
}

/**
 * Shares the loads over the +12 outputs so that the fullest is as little full as can be, exactly, by trying every way that
 * the label allows with a bound. The same input gives the same way. Null with fewer than two +12 outputs or nothing hung.
 */
export function spreadOverOutputs(label: SupplyLabel, hung: readonly HungLoad[]): OutputSpread | null {
  const outputs = label.rails.filter((rail) => rail.rail === '+12');
  if (outputs.length < 2 || hung.length === 0) return null;
  const told = outputs.some((output) => (output.feeds ?? []).length > 0);
  const choices = hung.map((load): number[] => {
    const pinned = outputs.findIndex((output) => output.label === load.output);
    if (pinned >= 0) return [pinned];
    const fed = outputs.flatMap((output, index) => ((output.feeds ?? []).includes(load.family) ? [index] : []));
    return fed.length > 0 ? fed : outputs.map((_, index) => index);
  });
  const known = hung.every(
    (load, index) =>
      choices[index]!.length === 1 || (told && outputs.some((output) => (output.feeds ?? []).includes(load.family))),
  );
  const order = hung
    .map((_, index) => index)
    .sort((a, b) => choices[a]!.length - choices[b]!.length || hung[b]!.amps12 - hung[a]!.amps12 || a - b);
  const amps = outputs.map(() => 0);
  const at: number[] = hung.map(() => 0);
  const full = (index: number) =>
    outputs[index]!.amps > 0 ? amps[index]! / outputs[index]!.amps : amps[index]! > 0 ? Infinity : 0;
  let best = { ratio: Infinity, at: null as number[] | null };
  const search = (depth: number, ratio: number): void => {
    if (ratio >= best.ratio && best.at !== null) return;
    const item = order[depth];
    if (item === undefined) {
      best = { ratio, at: [...at] };
      return;
    }
    for (const output of choices[item]!) {
      amps[output] = amps[output]! + hung[item]!.amps12;
      at[item] = output;
      search(depth + 1, Math.max(ratio, full(output)));
      amps[output] = amps[output] - hung[item]!.amps12;
    }
  };
  search(0, 0);
  const way = best.at ?? choices.map((list) => list[0]!);
  const worst = Math.max(
    0,
    ...outputs.map((output, index) => {
      const most = hung.reduce((sum, load, item) => sum + (choices[item]!.includes(index) ? load.amps12 : 0), 0);
      return output.amps > 0 ? most / output.amps : most > 0 ? Infinity : 0;
    }),
  );
  const filled = outputs.map((output, index): OutputLoad => {
    const own = hung.filter((_, item) => way[item] === index);
    return {
      label: output.label,
      amps: own.reduce((sum, load) => sum + load.amps12, 0),
      limitAmps: output.amps,
      carries: own.map((load) => load.name),
    };
  });
  return { outputs: filled, known, worstRatio: known ? best.ratio : worst };
}

/** What hangs on +12 inlet by inlet, for a supply whose cables are not known; all drives hang together. */
export function hungByInlet(parts: readonly MachinePart[]): HungLoad[] {
  const labels = new Map(
    parts.flatMap((part) =>
      part.inlets.map((inlet) => [inlet.id, { label: inlet.label, family: inletFamily(inlet.kind) }]),
    ),
  );
  const loads = inletLoads(parts).flatMap((load): HungLoad[] => {
    const inlet = labels.get(load.inletId);
    return inlet === undefined || load.amps['+12'] <= 0
      ? []
      : [{ name: inlet.label, family: inlet.family, amps12: load.amps['+12'], output: null }];
  });
  const drives = loads.filter((load) => load.family === 'drive');
  // A drive's inlet counts its spin-up; what lasts is what it turns with.
  const turning = parts
    .filter(
      (part) =>
        part.inlets.some((inlet) => inletFamily(inlet.kind) === 'drive') &&
        partClass(part.classId)?.group !== 'processor',
    )
    .reduce((sum, part) => sum + (part.figures.likelyWatts * part.figures.share12) / 12, 0);
  return [
    ...loads.filter((load) => load.family !== 'drive'),
    ...(drives.length === 0 || turning <= 0
      ? []
      : [{ name: 'drives', family: 'drive' as const, amps12: turning, output: null }]),
  ];
}
