/** What a plan is judged by, most important first; less is better in each. */
export interface PlanScore {
  readonly openRequired: number;
  /** Of the open required inlets, the 8-pin processor inlets: the larger is filled first. */
  readonly openLarger: number;
  /** Cables that carry more than their wires, contacts or code allow. */
  readonly overloaded: number;
  readonly openOptional: number;
  readonly sharing: number;
  /** Spare cables and adapters, which are not of the supply's own kit. */
  readonly foreign: number;
  /** Cables used; a drive chain of the supply's own kit does not count, so that drives are spread. */
  readonly cables: number;
  /** Sum over cables of squared amps on all voltages, for the evenness of the load. */
  readonly unevenness: number;
  readonly slackMillimetres: number;
}

export const noScore: PlanScore = {
  openRequired: 0,
  openLarger: 0,
  overloaded: 0,
  openOptional: 0,
  sharing: 0,
  foreign: 0,
  cables: 0,
  unevenness: 0,
  slackMillimetres: 0,
};
const order = [
  'openRequired',
  'openLarger',
  'overloaded',
  'openOptional',
  'sharing',
  'foreign',
  'cables',
  'unevenness',
  'slackMillimetres',
] as const;
const tolerance = 1e-9;

/** Negative when `a` is the better score, 0 when equal. */
export function compareScores(a: PlanScore, b: PlanScore): number {
  for (const key of order) {
    const difference = a[key] - b[key];
    if (Math.abs(difference) > tolerance) return difference;
  }
  return 0;
}

export function addScores(a: PlanScore, b: PlanScore): PlanScore {
  return {
    openRequired: a.openRequired + b.openRequired,
    openLarger: a.openLarger + b.openLarger,
    overloaded: a.overloaded + b.overloaded,
    openOptional: a.openOptional + b.openOptional,
    sharing: a.sharing + b.sharing,
    foreign: a.foreign + b.foreign,
    cables: a.cables + b.cables,
    unevenness: a.unevenness + b.unevenness,
    slackMillimetres: a.slackMillimetres + b.slackMillimetres,
  };
}
