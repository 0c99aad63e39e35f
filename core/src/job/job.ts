import type { FoundAdapter, Pin } from '../cable/index.ts';
import type { CaseLayout, MachinePart, SupplyLabel } from '../machine/index.ts';
import type { Condition, LogChannel, LogEvent, ProbedPin, ReadingValue, Subject } from '../measure/index.ts';
import type { InletKind, MainsSelector, PlugKind, Shape } from '../standards/index.ts';
import type { ChoiceFacts } from './choice-facts.ts';
import type { MeasuredLoad, School } from '../load/index.ts';
import { noWants, type DayProfile, type Wants } from '../supply/index.ts';

/** An instant as ISO 8601 text in UTC. */
export type Instant = string;

/** Who did something, and when. */
export interface Signed {
  readonly by: string;
  readonly at: Instant;
}

export const cableBagStates = ['came', 'missing', 'not-modular'] as const;
export type CableBagState = (typeof cableBagStates)[number];

/** A field of the sheet. */
export type SheetField = Exclude<keyof Sheet, 'version' | 'fieldRevisions'>;

/** What is written down at intake and at hand-over. Empty text and null mean that nobody said. */
export interface Sheet {
  /** Revision of the job at the last change of the sheet. */
  readonly version: number;
  /** Revision of the job at the last change of each field; a field that never changed is not named. */
  readonly fieldRevisions: Readonly<Partial<Record<SheetField, number>>>;
  readonly title: string;
  readonly client: string;
  readonly words: string;
  /** Outcome of the check `told-button`. */
  readonly button: string | null;
  /** Further outcomes of `told-button` that were seen too, at other times. */
  readonly alsoTold: readonly string[];
  /** Outcome of the check `told-course`. */
  readonly course: string | null;
  readonly surroundings: string;
  readonly machineYears: number | null;
  readonly supplyYears: number | null;
  readonly upgrade: string;
  readonly cableBag: CableBagState | null;
  readonly layout: CaseLayout;
  readonly shapes: readonly Shape[];
  readonly depthMillimetres: number | null;
  readonly school: School;
  /** Why this job is sized by another rule than the shop's. */
  readonly schoolNote: string;
  /** The least rating that the card's maker prints. */
  readonly cardAdviceWatts: number | null;
  /** Drives start one after the other. */
  readonly staggeredStart: boolean;
  readonly measuredLoad: MeasuredLoad | null;
  /** This machine's day; null for the shop's. */
  readonly day: DayProfile | null;
  readonly keepYears: number | null;
  readonly wants: Wants;
  readonly ownHoles: boolean;
  readonly ventClosed: boolean;
  /** What stands in the way in this case. */
  readonly hindrances: readonly Hindrance[];
  readonly watch: string;
  readonly leftInBag: string;
  /** How the client is reached. */
  readonly reach: string;
  /** The machine's serial number, or the tag that it has. */
  readonly serial: string;
  /** The serial number of the supply unit that was fitted. */
  readonly fittedSerial: string;
  /** What came along with the machine, beside the bag of cables. */
  readonly cameAlong: readonly CameAlong[];
  readonly cameAlongNote: string;
  /** The technician who has it in hand; null for nobody yet. */
  readonly inCharge: string | null;
  readonly priority: Priority;
  /** The day for which it was promised, ISO date. */
  readonly promisedOn: string | null;
  /** The name under which the shop starts other machines from this one; empty for none. */
  readonly usualAs: string;
  /** What became of the supply that came out; null while nobody said. */
  readonly oldSupply: OldSupply | null;
  /** What failed and how that was proved, or what it is kept for. */
  readonly oldSupplyNote: string;
  /** Given away as electrical waste. */
  readonly oldSupplyDisposed: boolean;
  /** A supply by itself, without a machine. */
  readonly bareSupply: boolean;
}

export type OldSupply = 'failed' | 'kept' | 'given-back';
export const oldSupplies = ['failed', 'kept', 'given-back'] as const satisfies readonly OldSupply[];

export type CameAlong = 'lead' | 'box' | 'manual' | 'screws' | 'keyboard' | 'media' | 'parts';
export const cameAlongKinds = [
  'lead',
  'box',
  'manual',
  'screws',
  'keyboard',
  'media',
  'parts',
] as const satisfies readonly CameAlong[];

/** `waits`: for a part, for the client, for anything but the bench. */
export type Priority = 'urgent' | 'usual' | 'waits';
export const priorities = ['urgent', 'usual', 'waits'] as const satisfies readonly Priority[];

/**
 * What a case does to the work: a radiator over the processor plug, a tray or sled under the supply, a release latch,
 * no room behind the supply for plugs, a machine too heavy for one, a maker's own clips for each cable.
 */
export type Hindrance = 'radiator' | 'tray' | 'latch' | 'tight' | 'heavy' | 'clips';
export const hindrances = [
  'radiator',
  'tray',
  'latch',
  'tight',
  'heavy',
  'clips',
] as const satisfies readonly Hindrance[];

export interface JobPart extends MachinePart {
  readonly version: number;
}

/** The supply that came with the machine. */
export interface PresentSupply {
  readonly version: number;
  readonly name: string;
  readonly label: SupplyLabel;
  /** Where its voltage selector stood as it came; left out where nobody looked. */
  readonly selector?: MainsSelector | undefined;
}

/** The answer to a check, noted by hand. */
export interface NotedOutcome extends Signed {
  readonly id: string;
  readonly checkId: string;
  readonly outcomeId: string;
  /** The tester that gave it, where one did. */
  readonly instrumentId: string | null;
  readonly takenBackAt: Instant | null;
}

export const phases = ['before', 'after'] as const;
export type Phase = (typeof phases)[number];

export interface Reading extends Signed {
  readonly id: string;
  readonly phase: Phase;
  readonly subject: Subject;
  readonly condition: Condition;
  readonly value: ReadingValue;
  readonly instrumentId: string;
  readonly loadWatts: number | null;
  /** Current on this rail, where it was measured or set. */
  readonly loadAmps: number | null;
  /** The pin that was touched, where one was named. */
  readonly pin: { readonly plug: InletKind; readonly pin: number } | null;
  /** The reading that this one corrects. */
  readonly replaces: string | null;
  readonly note: string;
  readonly struckAt: Instant | null;
  /** What was chosen when it was taken, for a reading after the work; null before it, and where nobody noted it. */
  readonly fitting: string | null;
}

/** What a reading carries that is typed as rail and figure only. */
export const bareReading = { loadWatts: null, loadAmps: null, pin: null, replaces: null, note: '' } as const;

/** A cable touched pin by pin at its device end. */
export interface CableProbe extends Signed {
  readonly id: string;
  readonly version: number;
  readonly label: string;
  readonly plug: InletKind;
  readonly pins: readonly ProbedPin[];
  readonly note: string;
}

/** What is kept of a logging meter's file. */
export interface KeptLog extends Signed {
  readonly id: string;
  readonly version: number;
  readonly name: string;
  readonly phase: Phase;
  readonly rows: number;
  /** Rows that could not be read. */
  readonly skipped: number;
  readonly lastsSeconds: number;
  readonly channels: readonly LogChannel[];
  readonly events: readonly LogEvent[];
  readonly eventsInAll: number;
}

export const findingKinds = ['fault', 'no-fault', 'hand-on'] as const;
export type FindingKind = (typeof findingKinds)[number];

/** What was found, as it stands in the report. */
export interface Finding extends Signed {
  readonly version: number;
  readonly kind: FindingKind;
  readonly faultId: string | null;
  /** A second fault that was there at the same time. */
  readonly alsoFaultId: string | null;
  /** Proved by a cure or a swap. */
  readonly confirmed: boolean;
  readonly note: string;
}

export const choiceKinds = ['replace', 'keep'] as const;
export type ChoiceKind = (typeof choiceKinds)[number];

/** What is fitted, and why. */
export interface Choice extends Signed {
  readonly version: number;
  readonly kind: ChoiceKind;
  readonly modelId: string | null;
  /** In somebody's own words; empty where nobody wrote any, and what was known speaks. */
  readonly reason: string;
  /** What was known when it was chosen. */
  readonly facts?: ChoiceFacts | undefined;
  /** What was known, as lines: how it was written down before it was kept as figures. */
  readonly known: readonly string[];
}

/** A cable as it was before anything was unplugged. */
export interface RecordedCable {
  readonly id: string;
  readonly version: number;
  readonly label: string;
  /** Socket on the supply; empty when the cable is fixed. */
  readonly socketLabel: string;
  readonly plugs: readonly RecordedPlug[];
  /** Holes, clips and hooks it runs through. */
  readonly way: string;
  readonly tiesToCut: number;
  /** It stands as such cables usually run, and nobody looked at it yet. */
  readonly likely?: boolean | undefined;
}

/** A plug of a recorded cable. */
export interface RecordedPlug {
  readonly kind: PlugKind;
  readonly inletId: string | null;
  /** The adapter or extension that was found between it and the inlet. */
  readonly through?: FoundAdapter | undefined;
}

/** The way that a cable was really laid with what was fitted. */
export interface LaidWay extends Signed {
  /** The choice it was laid for, as `fittingOf` names it. */
  readonly fitting: string;
  /** A piece of the kit or a recorded cable, as `cablesLaid` names it. */
  readonly cable: string;
  readonly version: number;
  readonly way: string;
}

/** A plug that a technician put elsewhere than the plan would. */
export interface PinnedPlug extends Pin, Signed {
  readonly version: number;
}

/** A plug that goes into an inlet, ticked as click, tug and gap, and as what its kind asks besides. */
export interface Seat extends Signed {
  readonly version: number;
  readonly inletId: string;
  readonly cableCode: string;
  /**
   * Which piece of the plan it was: what the cable's code stands for may change with the plan; empty for a recorded
   * one.
   */
  readonly piece: string;
  /** The inlet's kind when it was ticked; null where nobody noted it. */
  readonly inletKind: InletKind | null;
  readonly plugIndex: number;
  readonly click: boolean;
  readonly tug: boolean;
  readonly gap: boolean;
  /** Both halves of a split plug fully in. */
  readonly halves: boolean;
  /** No bend close to the plug. */
  readonly bend: boolean;
  /** The side panel does not press on it. */
  readonly panel: boolean;
  /** Looked at once more after the cables were tied. */
  readonly rechecked: Signed | null;
}

export type StepPhase = 'take-out' | 'refit';
export const stepPhases = ['take-out', 'refit'] as const satisfies readonly StepPhase[];

/** A step of taking out or refitting that is done. */
export interface StepTick extends Signed {
  readonly stepId: string;
}

/** The order in which somebody wants the steps of a phase. */
export interface StepOrder {
  readonly phase: StepPhase;
  readonly version: number;
  readonly stepIds: readonly string[];
}

/** Work that was done for a supply that is no longer the chosen one; it comes back when that one is chosen again. */
export interface LaidAside {
  /** The choice it was done for, as `fittingOf` names it. */
  readonly fitting: string;
  readonly seats: readonly Seat[];
  readonly pins: readonly PinnedPlug[];
  readonly steps: readonly StepTick[];
}

/** What is shown at the finished machine before it leaves. */
export type ProofItem = 'started' | 'picture' | 'fans' | 'drives' | 'card' | 'complaint';

/** That the machine was seen to do something with what was fitted, or seen not to. */
export interface Proof extends Signed {
  readonly item: ProofItem;
  /** What it was given for, as `proofSubject` names it. */
  readonly subject: string;
  readonly version: number;
  readonly holds: boolean;
  /** How it was tried: how long, under what load. */
  readonly note: string;
}

export type LeadKind =
  | 'panel-switch'
  | 'panel-lamp'
  | 'panel-speaker'
  | 'usb-2'
  | 'usb-3'
  | 'usb-c'
  | 'audio'
  | 'fan'
  | 'processor-fan'
  | 'pump'
  | 'light-5'
  | 'light-12'
  | 'sata-data'
  | 'hub-data'
  | 'riser'
  | 'clip'
  | 'aerial'
  | 'other';

/** What became of a lead: written down, never touched, unplugged now, or back where it was. */
export type LeadState = 'recorded' | 'untouched' | 'out' | 'back';
export const leadStates = ['recorded', 'untouched', 'out', 'back'] as const satisfies readonly LeadState[];

/** A lead that a change of supply may disturb and that carries no supply power, or carries it on. */
export interface Lead extends Signed {
  readonly id: string;
  readonly version: number;
  readonly kind: LeadKind;
  readonly what: string;
  /** Header or port, with pin and polarity where they count. */
  readonly place: string;
  readonly state: LeadState;
}

/** What was seen or said, wherever in the job; with a picture, why that one is in the report. */
export interface JobNote extends Signed {
  readonly id: string;
  readonly version: number;
  readonly text: string;
  /** The picture of the job that it is about; null for words alone. */
  readonly photoId: string | null;
  /** Whether the client's report shows it. */
  readonly inReport: boolean;
}

/** An open point that somebody answers for. */
export interface SignOff extends Signed {
  readonly id: string;
  readonly point: string;
  readonly reason: string;
}

export const jobStates = ['open', 'closed', 'away'] as const;
export type JobState = (typeof jobStates)[number];

export interface Job {
  readonly code: string;
  /** Counts every change to the job, never goes back, and is the version of whatever it changed. */
  readonly revision: number;
  readonly createdAt: Instant;
  readonly updatedAt: Instant;
  /** Who did the last act; null where nobody did one since it was made or taken in. */
  readonly updatedBy: string | null;
  /** `away`: made by mistake and put away; nothing of it is lost. */
  readonly state: JobState;
  readonly stateVersion: number;
  readonly closed: Signed | null;
  /** Who put it away, when and why; null for a job that is not. */
  readonly putAway: (Signed & { readonly reason: string }) | null;
  readonly sheet: Sheet;
  readonly parts: readonly JobPart[];
  readonly supply: PresentSupply | null;
  readonly outcomes: readonly NotedOutcome[];
  readonly readings: readonly Reading[];
  readonly probes: readonly CableProbe[];
  readonly logs: readonly KeptLog[];
  readonly finding: Finding | null;
  readonly choice: Choice | null;
  readonly cables: readonly RecordedCable[];
  readonly pins: readonly PinnedPlug[];
  readonly seats: readonly Seat[];
  readonly steps: readonly StepTick[];
  readonly stepOrders: readonly StepOrder[];
  readonly laidAside: readonly LaidAside[];
  readonly laidWays: readonly LaidWay[];
  readonly leads: readonly Lead[];
  readonly notes: readonly JobNote[];
  readonly proofs: readonly Proof[];
  readonly signOffs: readonly SignOff[];
}

/** A job with nothing but its first three fields. */
export function newJob(code: string, title: string, client: string, words: string, school: School, at: Instant): Job {
  return {
    code,
    revision: 1,
    createdAt: at,
    updatedAt: at,
    updatedBy: null,
    state: 'open',
    stateVersion: 1,
    closed: null,
    putAway: null,
    sheet: {
      version: 1,
      fieldRevisions: {},
      title,
      client,
      words,
      button: null,
      alsoTold: [],
      course: null,
      surroundings: '',
      machineYears: null,
      supplyYears: null,
      upgrade: '',
      cableBag: null,
      layout: 'tower',
      shapes: ['ATX'],
      depthMillimetres: null,
      school,
      schoolNote: '',
      cardAdviceWatts: null,
      staggeredStart: false,
      measuredLoad: null,
      day: null,
      keepYears: null,
      wants: noWants,
      ownHoles: false,
      ventClosed: false,
      hindrances: [],
      watch: '',
      leftInBag: '',
      reach: '',
      serial: '',
      fittedSerial: '',
      cameAlong: [],
      cameAlongNote: '',
      inCharge: null,
      priority: 'usual',
      promisedOn: null,
      usualAs: '',
      oldSupply: null,
      oldSupplyNote: '',
      oldSupplyDisposed: false,
      bareSupply: false,
    },
    parts: [],
    supply: null,
    outcomes: [],
    readings: [],
    probes: [],
    logs: [],
    finding: null,
    choice: null,
    cables: [],
    pins: [],
    seats: [],
    steps: [],
    stepOrders: [],
    laidAside: [],
    laidWays: [],
    leads: [],
    notes: [],
    proofs: [],
    signOffs: [],
  };
}
