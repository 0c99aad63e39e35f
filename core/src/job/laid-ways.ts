import { fittingOf } from './fitting.ts';
import type { Cabling, InletRow } from './cabling.ts';
import type { Job, LaidWay } from './job.ts';

/** A cable of what is fitted, with the way that it was laid, where somebody said it. */
export interface CableLaid {
  /** Which cable it is, whatever its code: a piece of the kit, or a recorded one. */
  readonly cable: string;
  readonly code: string;
  readonly inlets: readonly string[];
  /** The ways that the old cables to these inlets took: a suggestion, never taken for what was laid. */
  readonly asItWas: string;
  readonly laid: LaidWay | null;
}

const keyOf = ({ kitCableId, copy, cableCode }: Pick<InletRow, 'kitCableId' | 'copy' | 'cableCode'>): string =>
  kitCableId === null ? `record ${cableCode ?? ''}` : `${kitCableId} ${copy ?? 0}`;

/** What was said of a cable with the supply that is fitted now; what was said with another stays with that one. */
export function laidWayOf(job: Pick<Job, 'choice' | 'laidWays'>, cable: string): LaidWay | null {
  const fitting = fittingOf(job.choice);
  return job.laidWays.find((laid) => laid.cable === cable && laid.fitting === fitting) ?? null;
}

/** The cables of what is fitted, in the order of their codes. */
export function cablesLaid(
  job: Pick<Job, 'choice' | 'laidWays' | 'cables'>,
  { rows }: Pick<Cabling, 'rows'>,
): CableLaid[] {
  const served = rows.filter(({ state, cableCode }) => state !== 'wrong' && cableCode !== null);
  const oldWay = (inletId: string) =>
    job.cables.find(({ plugs }) => plugs.some((plug) => plug.inletId === inletId))?.way.trim() ?? '';
  const ends = served.flatMap((row) =>
    [row, ...row.legs].map((end) => ({ key: keyOf(end), code: end.cableCode ?? '', row })),
  );
  const cables = new Map(ends.map(({ key, code }) => [key, code]));
  return [...cables]
    .map(([cable, code]): CableLaid => {
      const own = ends.filter(({ key }) => key === cable).map(({ row }) => row);
      const ways = new Set(own.map(({ inletId }) => oldWay(inletId)).filter((way) => way !== ''));
      return {
        cable,
        code,
        inlets: own.map(({ label }) => label),
        asItWas: [...ways].join('; '),
        laid: laidWayOf(job, cable),
      };
    })
    .sort((a, b) => a.code.localeCompare(b.code, 'en', { numeric: true }));
}

/** The way of the cable to an inlet, for paper: as it was laid, else nothing. */
export const laidTo = (job: Pick<Job, 'choice' | 'laidWays'>, row: InletRow): string =>
  row.cableCode === null
    ? ''
    : [...new Set([row, ...row.legs].map((end) => laidWayOf(job, keyOf(end))?.way ?? ''))]
        .filter((way) => way !== '')
        .join(' + ');
