import type { ChangeMessage } from '@fairwatt/contract';

/** What has to be fetched anew when a kind of thing changed on the server. */
const tagsOfTopic: Readonly<Record<ChangeMessage['topic'], readonly string[]>> = {
  job: ['jobs'],
  lines: ['jobs'],
  everything: [],
  photos: ['photos'],
  presence: ['presence'],
  shop: ['shop', 'access', 'people'],
  supplies: ['supplies', 'units', 'parts'],
  bags: ['bags'],
  record: ['record'],
  instruments: ['instruments', 'sweeps'],
};

/** `EventSource.CLOSED`; by its number, since only browsers have the name. */
const refusedState = 2;
/** How long after a refusal the line is tried once more. */
export const retryMilliseconds = 3000;

/** The line on which a server tells what changed, as far as following needs it. */
export type Line = Pick<EventSource, 'onopen' | 'onerror' | 'onmessage' | 'readyState'>;

export interface Follower {
  /** Has fetched anew what stands under these tags, and one job where it is named. */
  readonly changed: (tags: readonly string[], code: string | null) => void;
  /** The revision of a job that is here already; 0 where it is not. */
  readonly known: (code: string) => number;
  /** Calls back once no answer about a job is on its way to here: this line is often faster than the answer. */
  readonly whenAnswered: (code: string, then: () => void) => void;
  /** Whether the screen shows already that nobody is signed in. */
  readonly nobodyIn: () => boolean;
  readonly line?: () => Line;
  /** Runs something later, unless what is returned is called. */
  readonly later?: (work: () => void, milliseconds: number) => () => void;
}

const laterByTimer = (work: () => void, milliseconds: number) => {
  const timer = setTimeout(work, milliseconds);
  return () => clearTimeout(timer);
};

/**
 * Hears from the server what anybody changed, so that it appears here within a moment. After a line that broke
 * everything is looked at again, since what happened meanwhile was not heard.
 *
 * A line that is refused, as where nobody is signed in any more, has the screen look who is in. It looks at every
 * refusal until it shows that nobody is: somebody may have come in and gone again between two tries.
 * @returns tries a refused line at once, as when somebody has signed in
 */
export function followServer({
  changed,
  known,
  whenAnswered,
  nobodyIn,
  line = () => new EventSource('/api/events'),
  later = laterByTimer,
}: Follower): () => void {
  let broken = false;
  let giveUpRetry: (() => void) | null = null;
  const all = () => changed(['job', ...Object.values(tagsOfTopic).flat()], null);
  const open = () => {
    giveUpRetry = null;
    const source = line();
    source.onopen = () => {
      if (broken) all();
      broken = false;
    };
    source.onerror = () => {
      broken = true;
      // A line that merely broke is opened again by the browser itself; one that is refused is not.
      if (source.readyState !== refusedState) return;
      if (!nobodyIn()) changed(['access'], null);
      giveUpRetry = later(open, retryMilliseconds);
    };
    source.onmessage = (message: MessageEvent<string>) => {
      const { topic, code, revision } = JSON.parse(message.data) as ChangeMessage;
      if (topic === 'everything') all();
      else if (topic === 'job' && code !== null && revision !== null)
        // What comes with the answer to an own act is not fetched once more.
        whenAnswered(code, () => changed(tagsOfTopic.job, known(code) >= revision ? null : code));
      else changed(tagsOfTopic[topic], topic === 'job' ? code : null);
    };
  };
  open();
  return () => {
    if (giveUpRetry === null) return;
    giveUpRetry();
    open();
  };
}
