import { QueryStatus } from '@reduxjs/toolkit/query';
import { subjectOf, versionAt, type Job } from '@fairwatt/core';
import { api } from '../app/api.ts';
import type { AppStore } from '../app/store.ts';
import { connection } from './connection.ts';
import { postTo } from './delivery.ts';
import { browserStorage, KeptParcels } from './kept-parcels.ts';
import { keepAnswer } from './kept-answer.ts';
import { isAway } from './kept-request.ts';
import { followServer } from './live-updates.ts';
import { outbox } from './outbox.ts';
import { nextOrder, thisTab, type Parcel } from './parcel.ts';
import { retryMilliseconds, Sender, settleMilliseconds } from './sender.ts';
import { isServerThere } from './server-there.ts';
import { browserTabs, type TabMessage } from './tabs.ts';

const watchMilliseconds = 8000;

/** What an act changes beside its own job. */
const tagsOf = (parcel: Parcel): readonly string[] =>
  parcel.kind === 'request'
    ? parcel.tags
    : parcel.act.kind === 'close' || parcel.act.kind === 'reopen'
      ? ['jobs', 'record']
      : ['jobs'];

/** Typed after its predecessor was sealed in another tab: a parcel of its own behind it. */
function successor(store: AppStore) {
  return (grown: Parcel, stands: Parcel | null): Parcel => {
    const fresh = { ...grown, id: crypto.randomUUID(), order: nextOrder(Date.now()), state: 'draft' as const };
    if (fresh.kind !== 'act') return fresh;
    if (stands !== null) return { ...fresh, base: { at: 'after', parcel: stands.id } };
    const job = api.endpoints.job.select(fresh.code)(store.getState()).data;
    const version = job === undefined ? 0 : versionAt(job, subjectOf(fresh.act));
    return { ...fresh, base: { at: 'seen', version } };
  };
}

/** Seals what this tab has typed once the typing pauses, or the page goes away. */
function sealAfterTyping(store: AppStore): void {
  let timer: ReturnType<typeof setTimeout> | undefined;
  let seen = store.getState().outbox.parcels;
  const own = () =>
    store.getState().outbox.parcels.filter((parcel) => parcel.state === 'draft' && parcel.tab === thisTab);
  const seal = () => {
    clearTimeout(timer);
    for (const parcel of own()) store.dispatch(outbox.seal(parcel.id));
  };
  store.subscribe(() => {
    const { parcels } = store.getState().outbox;
    if (parcels === seen) return;
    seen = parcels;
    clearTimeout(timer);
    if (own().length > 0) timer = setTimeout(seal, settleMilliseconds);
  });
  window.addEventListener('pagehide', seal);
}

/** Whether the server answers, asked now and then, for the notice at the top. */
function watchServer(store: AppStore, onBack: () => void): void {
  const ask = async (): Promise<void> => {
    const answered = await isServerThere();
    const was = store.getState().connection;
    // A server without room answers all the same; only a change that it takes tells otherwise.
    if (answered !== (was !== 'away')) store.dispatch(connection.set(answered ? 'here' : 'away'));
    if (answered && was !== 'here') onBack();
    if (answered) askAgain(store);
    setTimeout(() => void ask(), answered ? watchMilliseconds : retryMilliseconds);
  };
  void ask();
}

/** Calls back when another person is picked or signs in, and when somebody signs in again. */
function onSomebodyIn(store: AppStore, hear: () => void): void {
  const whoIsIn = () => {
    const { technician } = store.getState().session;
    const access = api.endpoints.access.select()(store.getState()).data;
    return access?.signing === 'secret' ? (access.person?.id ?? null) : technician;
  };
  let before = whoIsIn();
  store.subscribe(() => {
    const person = whoIsIn();
    if (person !== before && person !== null) hear();
    before = person;
  });
}

/** Asks once more for everything that the server did not answer when it was asked last. */
function askAgain(store: AppStore): void {
  for (const query of Object.values(store.getState().api.queries)) {
    if (query?.status !== QueryStatus.rejected || !isAway((query.error as { readonly status?: unknown }).status))
      continue;
    const endpoint = api.endpoints[query.endpointName as 'job'];
    void store.dispatch(endpoint.initiate(query.originalArgs as string, { forceRefetch: true, subscribe: false }));
  }
}

/** A job as the server has it now, known at once: screens hear of it with what is dispatched next. */
function keepJob(store: AppStore, job: Job): void {
  store.dispatch(api.util.upsertQueryEntries([{ endpointName: 'job', arg: job.code, value: job }]));
}

/** Calls back once what was sent about a job has its answer; at once where nothing is on its way. */
const whenAnswered = (store: AppStore) => (code: string, then: () => void) => {
  const isUnderWay = () => {
    const { sending, parcels } = store.getState().outbox;
    return parcels.some((parcel) => parcel.id === sending && parcel.kind === 'act' && parcel.code === code);
  };
  if (!isUnderWay()) {
    then();
    return;
  }
  const leave = store.subscribe(() => {
    if (isUnderWay()) return;
    leave();
    then();
  });
};

type TellChanged = (tags: readonly string[], code: string | null) => void;

/** What sends for all tabs, and tells them what came of it. */
function senderOf(
  store: AppStore,
  tabs: ReturnType<typeof browserTabs>,
  kept: KeptParcels,
  tellChanged: TellChanged,
): Sender {
  return new Sender({
    state: () => store.getState().outbox,
    dispatch: (action) => void store.dispatch(action),
    post: postTo('/api'),
    now: () => Date.now(),
    later: (work, milliseconds) => {
      const timer = setTimeout(work, milliseconds);
      return () => clearTimeout(timer);
    },
    connection: (state) => {
      if (store.getState().connection !== state) tabs.tell({ kind: 'connection', state });
      store.dispatch(connection.set(state));
    },
    // Who is in may not be who was: the screen looks, and shows the way in.
    held: () => tellChanged(['access'], null),
    delivered: (parcels, done, { job }) => {
      if (job !== null) {
        keepJob(store, job);
        tabs.tell({ kind: 'job', job });
        void keepAnswer(job);
      }
      tabs.tell({ kind: 'confirmed', done });
      tellChanged([...new Set(parcels.flatMap(tagsOf))], null);
    },
    learned: ({ current }) => {
      if (current === null) return;
      keepJob(store, current);
      tabs.tell({ kind: 'job', job: current });
    },
    seal: kept.seal,
  });
}

function isNobodyIn(store: AppStore): boolean {
  const access = api.endpoints.access.select()(store.getState()).data;
  return access?.signing === 'secret' && access.person === null;
}

/** Keeps, sends and hears for as long as the page is open; resolves once what an earlier visit left is at hand. */
export async function startOffline(store: AppStore): Promise<void> {
  const tabs = browserTabs();
  const dispatch = (action: { readonly type: string }) => void store.dispatch(action);
  const kept = new KeptParcels({
    tab: thisTab,
    state: () => store.getState().outbox,
    dispatch,
    open: browserStorage,
    tell: tabs.tell,
    successor: successor(store),
  });
  let sender: Sender | null = null;
  let reopenLine: (() => void) | null = null;
  const changed = (tags: readonly string[], code: string | null) => {
    store.dispatch(api.util.invalidateTags(tags as Parameters<typeof api.util.invalidateTags>[0]));
    if (code !== null) store.dispatch(api.util.invalidateTags([{ type: 'job', id: code }]));
  };
  const hear = (message: TabMessage): void => {
    switch (message.kind) {
      case 'put':
        kept.hear(outbox.put(message.parcel));
        sender?.wake();
        break;
      case 'gone':
        kept.hear(outbox.gone(message.id));
        break;
      case 'confirmed':
        kept.hear(outbox.confirmed(message.done));
        break;
      case 'job':
        keepJob(store, message.job);
        break;
      case 'changed':
        changed(message.tags, message.code);
        break;
      case 'connection':
        store.dispatch(connection.set(message.state));
    }
  };
  tabs.listen(hear);
  await kept.open();
  store.subscribe(() => {
    kept.look();
    if (store.getState().outbox.parcels.some((parcel) => parcel.state === 'waiting'))
      sender?.wake(store.getState().connection !== 'here' ? retryMilliseconds : 0);
  });
  sealAfterTyping(store);
  const tellChanged = (tags: readonly string[], code: string | null) => {
    changed(tags, code);
    tabs.tell({ kind: 'changed', tags, code });
  };
  tabs.lead(() => {
    const mine = senderOf(store, tabs, kept, tellChanged);
    void kept.takeStock().then(() => {
      sender = mine;
      mine.wake();
    });
    reopenLine = followServer({
      changed: tellChanged,
      whenAnswered: whenAnswered(store),
      known: (code) => api.endpoints.job.select(code)(store.getState()).data?.revision ?? 0,
      nobodyIn: () => isNobodyIn(store),
    });
  });
  window.addEventListener('online', () => sender?.wake());
  onSomebodyIn(store, () => {
    sender?.release();
    reopenLine?.();
  });
  watchServer(store, () => sender?.wake());
}
