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

const retryMilliseconds = 3000;

/**
 * Hears from the server what anybody changed, so that it appears here within a moment. After a line that broke
 * everything is looked at again, since what happened meanwhile was not heard.
 */
export function followServer(
  changed: (tags: readonly string[], code: string | null) => void,
  known: (code: string) => number,
): void {
  let broken = false;
  let lookedWhoIsIn = false;
  const all = () => changed(['job', ...Object.values(tagsOfTopic).flat()], null);
  const open = () => {
    const source = new EventSource('/api/events');
    source.onopen = () => {
      if (broken) all();
      broken = false;
      lookedWhoIsIn = false;
    };
    source.onerror = () => {
      const refused = source.readyState === EventSource.CLOSED;
      // Refused, as where nobody is signed in any more: the screen looks who is in, once.
      if (refused && !lookedWhoIsIn) changed(['access'], null);
      lookedWhoIsIn ||= refused;
      broken = true;
      // The browser does not try again by itself.
      if (refused) setTimeout(open, retryMilliseconds);
    };
    source.onmessage = (message: MessageEvent<string>) => {
      const { topic, code, revision } = JSON.parse(message.data) as ChangeMessage;
      if (topic === 'everything') all();
      // What came with the answer to an own act is not fetched once more.
      else if (topic === 'job' && code !== null && revision !== null && known(code) >= revision)
        changed(['jobs'], null);
      else changed(tagsOfTopic[topic], topic === 'job' ? code : null);
    };
  };
  open();
}
