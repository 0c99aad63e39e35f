import type { Act, ActContext, ActKind, ActResult, Refusal } from '../act.ts';
import type { Job } from '../job.ts';
import { subjectOf } from '../subject.ts';

export type ActOf<K extends ActKind> = Extract<Act, { readonly kind: K }>;

/** What each of these acts does to a job. */
export type Doers<K extends ActKind> = { readonly [P in K]: (act: ActOf<P>, on: Doing) => ActResult };

export const refuse = (refusal: Refusal): ActResult => ({ ok: false, refusal });

interface Versioned {
  readonly version: number;
}

/** A list with something done to it, or why that is refused. */
type Changed<T> = { readonly list: readonly T[] } | Refusal;

/** A list with one thing written, seen at this version: in the place of what is the same, else behind the others. */
export function written<T extends Versioned>(
  list: readonly T[],
  item: T,
  same: (one: T) => boolean,
  basedOn: number,
  subject: string,
): Changed<T> {
  const index = list.findIndex(same);
  const current = list[index]?.version ?? 0;
  if (current !== basedOn) return { code: 'stale', subject, basedOn, current };
  return { list: index < 0 ? [...list, item] : list.map((one, position) => (position === index ? item : one)) };
}

export function dropped<T extends Versioned>(
  list: readonly T[],
  same: (one: T) => boolean,
  basedOn: number,
  subject: string,
): Changed<T> {
  const found = list.find(same);
  if (found === undefined) return { code: 'not-found', subject };
  if (found.version !== basedOn) return { code: 'stale', subject, basedOn, current: found.version };
  return { list: list.filter((one) => !same(one)) };
}

/** Lists of things that are told apart by an id of their own. */
type ById = 'cables' | 'probes' | 'logs' | 'leads' | 'notes';
/** Lists that an act writes one thing of. */
type Written = ById | 'seats' | 'pins' | 'stepOrders' | 'proofs' | 'laidWays';

/** One act under way: the job that it changes, who does it and when, and the ways to change it. */
export class Doing {
  readonly job: Job;
  readonly knows: ActContext['knows'];
  readonly at: string;
  readonly signed: { readonly by: string; readonly at: string };
  /** The version of whatever it changes. */
  readonly revision: number;
  readonly subject: string;
  readonly unansweredPoints: ActContext['unansweredPoints'];

  constructor(job: Job, act: Act, { by, at, knows, unansweredPoints }: ActContext) {
    this.job = job;
    this.knows = knows;
    this.at = at;
    this.signed = { by, at };
    this.revision = job.revision + 1;
    this.subject = subjectOf(act);
    this.unansweredPoints = unansweredPoints;
  }

  /** The job with these changes, as the act leaves it. */
  done(changes: Partial<Job>): ActResult {
    const { by, at } = this.signed;
    return {
      ok: true,
      job: { ...this.job, ...changes, revision: this.revision, updatedAt: at, updatedBy: by },
    };
  }

  /** A refusal where the subject was seen at another version; null where it was seen as it is. */
  stale(basedOn: number, current: number): ActResult | null {
    return basedOn === current ? null : refuse({ code: 'stale', subject: this.subject, basedOn, current });
  }

  /** Writes one thing of a list. */
  put<K extends Written>(
    key: K,
    item: Job[K][number],
    basedOn: number,
    same: (one: Job[K][number]) => boolean,
  ): ActResult {
    return this.withList(key, written(this.listOf(key), item, same, basedOn, this.subject));
  }

  drop<K extends Written>(key: K, basedOn: number, same: (one: Job[K][number]) => boolean): ActResult {
    return this.withList(key, dropped(this.listOf(key), same, basedOn, this.subject));
  }

  putById<K extends ById>(key: K, item: Job[K][number], basedOn: number): ActResult {
    return this.put(key, item, basedOn, (one) => one.id === item.id);
  }

  dropById(key: ById, id: string, basedOn: number): ActResult {
    return this.drop(key, basedOn, (one) => one.id === id);
  }

  /** The ids of all inlets of the machine. */
  inletIds(): ReadonlySet<string> {
    return new Set(this.job.parts.flatMap((part) => part.inlets.map((inlet) => inlet.id)));
  }

  private listOf<K extends Written>(key: K): readonly Job[K][number][] {
    return this.job[key];
  }

  private withList<K extends Written>(key: K, result: Changed<Job[K][number]>): ActResult {
    return 'code' in result ? refuse(result) : this.done({ [key]: result.list });
  }
}
