import type {
  CableProbe,
  Choice,
  Finding,
  Instant,
  Job,
  JobPart,
  KeptLog,
  JobNote,
  Lead,
  LeadState,
  PinnedPlug,
  PresentSupply,
  ProofItem,
  Reading,
  RecordedCable,
  Seat,
  Sheet,
  SheetField,
  StepPhase,
} from './job.ts';
import type { JobList } from './limits.ts';

export type SheetChanges = { readonly [K in SheetField]?: Sheet[K] | undefined };

/**
 * Everything that can be done to a job. `basedOn` is the version of its subject that was seen; 0 for something new. A
 * version is the job's revision at the last change, so it is never given twice.
 */
export type Act =
  | { readonly kind: 'edit-sheet'; readonly changes: SheetChanges; readonly basedOn: number }
  | { readonly kind: 'put-part'; readonly part: Omit<JobPart, 'version'>; readonly basedOn: number }
  | { readonly kind: 'drop-part'; readonly partId: string; readonly basedOn: number }
  | { readonly kind: 'put-supply'; readonly supply: Omit<PresentSupply, 'version'>; readonly basedOn: number }
  | { readonly kind: 'drop-supply'; readonly basedOn: number }
  | {
      readonly kind: 'note-outcome';
      readonly id: string;
      readonly checkId: string;
      readonly outcomeId: string;
      readonly instrumentId?: string | null | undefined;
      /** The standing answer that was seen and is replaced, null for none; where it is not said, whatever stands is. */
      readonly instead?: string | null | undefined;
    }
  | { readonly kind: 'take-back-outcome'; readonly id: string }
  | { readonly kind: 'take-reading'; readonly reading: Omit<Reading, 'by' | 'at' | 'struckAt' | 'fitting'> }
  /** Strikes a reading and takes another in its place; `reading.replaces` names it. */
  | { readonly kind: 'correct-reading'; readonly reading: Omit<Reading, 'by' | 'at' | 'struckAt' | 'fitting'> }
  | { readonly kind: 'strike-reading'; readonly id: string }
  | { readonly kind: 'restore-reading'; readonly id: string }
  | { readonly kind: 'put-probe'; readonly probe: Omit<CableProbe, 'by' | 'at' | 'version'>; readonly basedOn: number }
  | { readonly kind: 'drop-probe'; readonly probeId: string; readonly basedOn: number }
  | { readonly kind: 'put-log'; readonly log: Omit<KeptLog, 'by' | 'at' | 'version'>; readonly basedOn: number }
  | { readonly kind: 'drop-log'; readonly logId: string; readonly basedOn: number }
  | {
      readonly kind: 'set-finding';
      readonly finding:
        | (Omit<Finding, 'by' | 'at' | 'version' | 'alsoFaultId'> & {
            readonly alsoFaultId?: string | null | undefined;
          })
        | null;
      readonly basedOn: number;
    }
  | {
      readonly kind: 'set-choice';
      readonly choice: Omit<Choice, 'by' | 'at' | 'version'> | null;
      readonly basedOn: number;
    }
  | { readonly kind: 'put-cable'; readonly cable: Omit<RecordedCable, 'version'>; readonly basedOn: number }
  | { readonly kind: 'drop-cable'; readonly cableId: string; readonly basedOn: number }
  /**
   * Exchanges two inlets between recorded plugs: the first is this cable's, the second the other one's, or no cable's,
   * then the plug is in that one.
   */
  | {
      readonly kind: 'swap-inlets';
      readonly cableId: string;
      readonly otherCableId: string | null;
      readonly inletId: string;
      readonly otherInletId: string;
      readonly basedOn: number;
    }
  /** Puts a plug into an inlet by hand; what the plan would have there goes elsewhere. */
  | { readonly kind: 'put-pin'; readonly pin: Omit<PinnedPlug, 'by' | 'at' | 'version'>; readonly basedOn: number }
  | { readonly kind: 'drop-pin'; readonly inletId: string; readonly basedOn: number }
  | {
      readonly kind: 'put-seat';
      readonly seat: Omit<Seat, 'by' | 'at' | 'version' | 'rechecked' | 'inletKind' | 'piece'> & {
        readonly piece?: string | undefined;
      };
      readonly basedOn: number;
    }
  /** Seats that were looked at once more after tying; those that are not there any more are passed over. */
  | { readonly kind: 'recheck-seats'; readonly inletIds: readonly string[] }
  | { readonly kind: 'tick-step'; readonly stepId: string }
  | { readonly kind: 'untick-step'; readonly stepId: string }
  /** Says which way a cable was laid with what is fitted now; nothing, where it is taken back. */
  | { readonly kind: 'lay-cable'; readonly cable: string; readonly way: string; readonly basedOn: number }
  | {
      readonly kind: 'order-steps';
      readonly phase: StepPhase;
      readonly stepIds: readonly string[];
      readonly basedOn: number;
    }
  /**
   * Says what was seen of the machine as it stands now; what was said of it with another supply stays with that one.
   */
  | { readonly kind: 'put-lead'; readonly lead: Omit<Lead, 'by' | 'at' | 'version'>; readonly basedOn: number }
  | { readonly kind: 'drop-lead'; readonly leadId: string; readonly basedOn: number }
  | { readonly kind: 'put-note'; readonly note: Omit<JobNote, 'by' | 'at' | 'version'>; readonly basedOn: number }
  | { readonly kind: 'drop-note'; readonly noteId: string; readonly basedOn: number }
  /** What became of several leads at once; those that are not there any more are passed over. */
  | { readonly kind: 'mark-leads'; readonly leadIds: readonly string[]; readonly state: LeadState }
  | {
      readonly kind: 'note-proof';
      readonly item: ProofItem;
      readonly holds: boolean;
      readonly note: string;
      readonly basedOn: number;
    }
  | { readonly kind: 'drop-proof'; readonly item: ProofItem; readonly basedOn: number }
  | { readonly kind: 'sign-off'; readonly id: string; readonly point: string; readonly reason: string }
  | { readonly kind: 'withdraw-sign-off'; readonly id: string }
  | { readonly kind: 'close'; readonly basedOn: number }
  | { readonly kind: 'reopen'; readonly basedOn: number }
  /** Puts away a job that was made by mistake; `reopen` takes it out again. */
  | { readonly kind: 'put-away'; readonly reason: string; readonly basedOn: number };

export type ActKind = Act['kind'];

/** Why an act was refused. `stale`: somebody else changed the same thing since it was seen. */
export type Refusal =
  | { readonly code: 'stale'; readonly subject: string; readonly basedOn: number; readonly current: number }
  | { readonly code: 'closed' }
  | { readonly code: 'away' }
  | { readonly code: 'not-found'; readonly subject: string }
  | { readonly code: 'duplicate'; readonly subject: string }
  | { readonly code: 'unknown-reference'; readonly path: string; readonly value: string }
  | { readonly code: 'limit'; readonly list: JobList; readonly most: number }
  | { readonly code: 'open-points'; readonly count: number };

export type ActResult = { readonly ok: true; readonly job: Job } | { readonly ok: false; readonly refusal: Refusal };

/** Who acts and when, what the shop knows, and how many points stand unanswered now. */
export interface ActContext {
  readonly by: string;
  readonly at: Instant;
  readonly knows: {
    readonly instrument: (id: string) => boolean;
    readonly supply: (id: string) => boolean;
    readonly fault: (id: string) => boolean;
    readonly outcome: (checkId: string, outcomeId: string) => boolean;
  };
  readonly unansweredPoints: (job: Job) => number;
}
