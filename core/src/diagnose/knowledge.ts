/** The fault model as data. Likelihoods are per cent; every row sums to 100. */
export type FaultGroup = 'mains' | 'supply' | 'wiring' | 'control' | 'machine' | 'other';
export const faultGroups = [
  'mains',
  'supply',
  'wiring',
  'control',
  'machine',
  'other',
] as const satisfies readonly FaultGroup[];

export interface Cure {
  /** Faults that share a cure share this id. */
  readonly id: string;
  readonly text: string;
  readonly minutes: number;
  /** The cure buys a part, so doing it in vain costs more than its minutes. */
  readonly part?: boolean | undefined;
}

export interface Fault {
  readonly id: string;
  readonly group: FaultGroup;
  readonly name: string;
  /** Relative frequency among the jobs of a bench, any positive unit. */
  readonly prior: number;
  readonly cure: Cure;
  /** Cures of other faults that end this one too: a larger supply also ends a weak one. */
  readonly alsoEndedBy?: readonly string[] | undefined;
  /** Not a power fault: the job is handed on. */
  readonly outside?: boolean | undefined;
  /** Not a fault at all: the machine is well. */
  readonly healthy?: boolean | undefined;
  readonly why: string;
  /** Only of machines that have it. */
  readonly about?: About | undefined;
}

export type CheckKind = 'told' | 'look' | 'do' | 'measure' | 'computed' | 'decide';
export const checkKinds = [
  'told',
  'look',
  'do',
  'measure',
  'computed',
  'decide',
] as const satisfies readonly CheckKind[];
export const hazards = ['none', 'low', 'mains'] as const;
export type Hazard = (typeof hazards)[number];
export type Need =
  | 'meter'
  | 'tester'
  | 'oscilloscope'
  | 'spare-supply'
  | 'second-spare'
  | 'spare-memory'
  | 'spare-card'
  | 'spare-board'
  | 'running';
export const needs = [
  'meter',
  'tester',
  'oscilloscope',
  'spare-supply',
  'second-spare',
  'spare-memory',
  'spare-card',
  'spare-board',
  'running',
] as const satisfies readonly Need[];

/**
 * What is put under power: the machine by the supply that came, that supply alone, the machine by a known-good supply,
 * the machine by the supply that was chosen for it.
 */
export type Powering = 'machine' | 'supply' | 'spare' | 'fitted';

/** A part of the machine without which a fault cannot be and a check makes no sense. */
export type About = 'card' | 'card-plug' | 'card-16';
export const abouts = ['card', 'card-plug', 'card-16'] as const satisfies readonly About[];

/** A way in which a danger is made safe. */
export interface DangerWay {
  readonly id: string;
  readonly label: string;
  /** What is not powered any more, ever. */
  readonly never?: readonly Powering[] | undefined;
  /** Ids of the cures that are left, where something is never powered again. */
  readonly leaves?: readonly string[] | undefined;
}

/** Something that was found and must be made safe before anything is powered. */
export interface Danger {
  readonly id: string;
  readonly title: string;
  readonly why: string;
  readonly minutes: number;
  /** What to do first, in order. */
  readonly first: readonly string[];
  /** Empty where it is over only when its cause is gone. */
  readonly ways: readonly DangerWay[];
}

export interface CheckOutcome {
  readonly id: string;
  readonly label: string;
  readonly hint?: string | undefined;
  /** Faults that this outcome proves, by cure or by swap. */
  readonly cures?: readonly string[] | undefined;
  /** Cures that were carried out in coming to it and changed nothing. */
  readonly tries?: readonly string[] | undefined;
  /** It is better but not gone: what one sees where one of two faults was ended. */
  readonly partly?: boolean | undefined;
  /** The instrument says by it that the supply is well. */
  readonly sound?: boolean | undefined;
  /** With this outcome the machine does not stay on, so nothing can be tried at work. */
  readonly stands?: boolean | undefined;
  /** It shows this danger. */
  readonly danger?: string | undefined;
  /** A danger is likely with it: this look finds out, and goes before anything is powered. */
  readonly lookFirst?: string | undefined;
}

export interface LikelihoodRow {
  readonly faults: readonly string[] | 'others';
  /** Per cent, one for each outcome, summing to 100. */
  readonly weights: readonly number[];
  readonly why: string;
}

export interface Check {
  readonly id: string;
  /** `repair` and `safety` are never in a file: the model makes these from the cures and the dangers. */
  readonly kind: CheckKind | 'repair' | 'safety';
  /** Checks of one evidence group tell the same story; later ones are damped. */
  readonly evidence: string;
  readonly title: string;
  readonly minutes: number;
  readonly needs: readonly Need[];
  readonly hazard: Hazard;
  /** What is put under power in doing it; nothing where it is left out. */
  readonly powers?: Powering | undefined;
  readonly caution?: string | undefined;
  /**
   * What to draw: `main-24:16,17` is pins 16 and 17 of the main connector, `cpu-8` the whole plug, `power-switch` the
   * front panel's pins.
   */
  readonly drawing?: string | undefined;
  /** The station whose figures answer this check by themselves. */
  readonly from?: 'intake' | 'measure' | 'load' | undefined;
  /** Only sensible after this other check. */
  readonly after?: string | undefined;
  /** ... and only after one of these outcomes of it. */
  readonly afterOutcomes?: readonly string[] | undefined;
  readonly instrument?: 'tester' | undefined;
  /** Only for machines that have it. */
  readonly about?: About | undefined;
  readonly steps: readonly string[];
  readonly outcomes: readonly CheckOutcome[];
  readonly rows: readonly LikelihoodRow[];
}

export interface Knowledge {
  readonly format: 'fairwatt-knowledge';
  readonly version: 1;
  readonly release: string;
  readonly note: string;
  readonly faults: readonly Fault[];
  readonly dangers: readonly Danger[];
  readonly checks: readonly Check[];
}

export type KnowledgeProblem = {
  readonly code:
    | 'duplicate-id'
    | 'row-sum'
    | 'row-length'
    | 'zero-weight'
    | 'unknown-fault'
    | 'fault-twice'
    | 'fault-uncovered'
    | 'idle-others'
    | 'indifferent-check'
    | 'unknown-cure'
    | 'unknown-try'
    | 'unknown-danger'
    | 'unknown-look'
    | 'unknown-leaving'
    | 'unknown-after'
    | 'unknown-ending'
    | 'inseparable';
  /** Where it stands, such as `checks.do-lead.rows.1`. */
  readonly path: string;
  readonly detail: string;
};

/** Whether a check stands in the file; those that the model makes itself do not. */
export const isFromFile = (check: Check): check is Check & { readonly kind: CheckKind } =>
  check.kind !== 'repair' && check.kind !== 'safety';

/** Does this cure end this fault? */
export function isEndedBy(fault: Fault, cureId: string): boolean {
  return fault.cure.id === cureId || fault.alsoEndedBy?.includes(cureId) === true;
}

/** The row that speaks for a fault in a check; undefined when there is none. */
export function rowFor(check: Check, faultId: string): LikelihoodRow | undefined {
  return (
    check.rows.find((row) => row.faults !== 'others' && row.faults.includes(faultId)) ??
    check.rows.find((row) => row.faults === 'others')
  );
}

function checkProblems(check: Check, faultIds: ReadonlySet<string>): KnowledgeProblem[] {
  const problems: KnowledgeProblem[] = [];
  const say = (code: KnowledgeProblem['code'], path: string, detail: string) =>
    problems.push({ code, path: `checks.${check.id}${path}`, detail });
  const named = new Set<string>();
  check.rows.forEach((row, index) => {
    const sum = row.weights.reduce((total, weight) => total + weight, 0);
    if (Math.abs(sum - 100) > 1e-6) say('row-sum', `.rows.${index}`, `sums to ${sum}, not 100`);
    if (row.weights.length !== check.outcomes.length)
      say('row-length', `.rows.${index}`, `${row.weights.length} weights for ${check.outcomes.length} outcomes`);
    if (row.weights.some((weight) => !(weight > 0)))
      say('zero-weight', `.rows.${index}`, 'nothing is impossible: every weight is above 0');
    if (row.faults === 'others') return;
    for (const fault of row.faults) {
      if (!faultIds.has(fault)) say('unknown-fault', `.rows.${index}`, fault);
      if (named.has(fault)) say('fault-twice', `.rows.${index}`, fault);
      named.add(fault);
    }
  });
  const others = check.rows.filter((row) => row.faults === 'others').length;
  if (others === 0) for (const fault of faultIds) if (!named.has(fault)) say('fault-uncovered', '.rows', fault);
  if (others > 1 || (others === 1 && [...faultIds].every((fault) => named.has(fault))))
    say('idle-others', '.rows', 'one row for others, and only where a fault is left for it');
  if (new Set(check.rows.map((row) => row.weights.join())).size < 2)
    say('indifferent-check', '', 'no fault changes what is seen');
  for (const outcome of check.outcomes)
    for (const cure of outcome.cures ?? [])
      if (!faultIds.has(cure)) say('unknown-cure', `.outcomes.${outcome.id}`, cure);
  if (new Set(check.outcomes.map((outcome) => outcome.id)).size < check.outcomes.length)
    say('duplicate-id', '.outcomes', 'two outcomes of one id');
  return problems;
}

/** Everything wrong with a knowledge file; empty when it may be used. */
export function validateKnowledge(knowledge: Knowledge): KnowledgeProblem[] {
  const problems: KnowledgeProblem[] = [];
  const faultIds = new Set(knowledge.faults.map((fault) => fault.id));
  const checkIds = new Set(knowledge.checks.map((check) => check.id));
  if (faultIds.size < knowledge.faults.length)
    problems.push({ code: 'duplicate-id', path: 'faults', detail: 'two faults of one id' });
  if (checkIds.size < knowledge.checks.length)
    problems.push({ code: 'duplicate-id', path: 'checks', detail: 'two checks of one id' });
  const cureIds = new Set(knowledge.faults.map((fault) => fault.cure.id));
  const dangerIds = new Set(knowledge.dangers.map((danger) => danger.id));
  if (dangerIds.size < knowledge.dangers.length)
    problems.push({ code: 'duplicate-id', path: 'dangers', detail: 'two dangers of one id' });
  for (const check of knowledge.checks) {
    problems.push(...checkProblems(check, faultIds));
    for (const { id, cures, tries = [] } of check.outcomes)
      for (const cure of tries)
        if (!cureIds.has(cure) || cures !== undefined)
          problems.push({ code: 'unknown-try', path: `checks.${check.id}.outcomes.${id}`, detail: cure });
    for (const outcome of check.outcomes)
      if (outcome.danger !== undefined && !dangerIds.has(outcome.danger))
        problems.push({
          code: 'unknown-danger',
          path: `checks.${check.id}.outcomes.${outcome.id}`,
          detail: outcome.danger,
        });
    for (const { id, lookFirst } of check.outcomes) {
      if (lookFirst === undefined) continue;
      const look = knowledge.checks.find((candidate) => candidate.id === lookFirst);
      const finds = look?.outcomes.some(({ danger }) => danger !== undefined) === true;
      if (look?.kind !== 'look' || look.powers !== undefined || !finds)
        problems.push({ code: 'unknown-look', path: `checks.${check.id}.outcomes.${id}`, detail: lookFirst });
    }
    if (check.after !== undefined && !checkIds.has(check.after))
      problems.push({ code: 'unknown-after', path: `checks.${check.id}.after`, detail: check.after });
    const before = knowledge.checks.find((candidate) => candidate.id === check.after);
    for (const outcome of check.afterOutcomes ?? [])
      if (before?.outcomes.some((candidate) => candidate.id === outcome) !== true)
        problems.push({ code: 'unknown-after', path: `checks.${check.id}.afterOutcomes`, detail: outcome });
  }
  for (const fault of knowledge.faults)
    for (const cure of fault.alsoEndedBy ?? [])
      if (!cureIds.has(cure) || cure === fault.cure.id)
        problems.push({ code: 'unknown-ending', path: `faults.${fault.id}.alsoEndedBy`, detail: cure });
  for (const danger of knowledge.dangers)
    for (const way of danger.ways)
      for (const cure of way.leaves ?? [])
        if (!cureIds.has(cure))
          problems.push({ code: 'unknown-leaving', path: `dangers.${danger.id}.ways.${way.id}`, detail: cure });
  const rowsOf = (fault: Fault) =>
    knowledge.checks.map((check) => rowFor(check, fault.id)?.weights.join() ?? '').join('|');
  const seen = new Map<string, string>();
  for (const fault of knowledge.faults) {
    const key = rowsOf(fault);
    const twin = seen.get(key);
    if (twin !== undefined)
      problems.push({ code: 'inseparable', path: `faults.${fault.id}`, detail: `no check tells it from ${twin}` });
    else seen.set(key, fault.id);
  }
  return problems;
}
