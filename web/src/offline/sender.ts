import type { Job, Refusal } from '@fairwatt/core';
import type { Problem } from '@fairwatt/contract';
import { api } from '../app/api.ts';
import type { AppStore } from '../app/store.ts';
import { connection } from './connection.ts';
import { keepItems, outbox, type OutboxItem } from './outbox.ts';

/** Typing pauses this long before it is sent. */
const settleMilliseconds = 350;
const retryMilliseconds = 1500;
const watchMilliseconds = 8000;

const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);

type Answer =
  | { readonly kind: 'done'; readonly job: Job }
  | { readonly kind: 'away' }
  | { readonly kind: 'problem'; readonly problem: Problem };

async function post(item: OutboxItem): Promise<Answer> {
  try {
    const response = await fetch(`/api/jobs/${encodeURIComponent(item.code)}/acts`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ id: item.id, by: item.by, act: item.act }),
      signal: AbortSignal.timeout(10_000),
    });
    if (response.ok) return { kind: 'done', job: (await response.json()) as Job };
    if (response.status >= 500) {
      await response.text();
      return { kind: 'away' };
    }
    return { kind: 'problem', problem: (await response.json()) as Problem };
  } catch {
    // No answer at all, an answer cut short, or one that is not ours: the change is kept and sent again.
    return { kind: 'away' };
  }
}

/** Sends what waits, one after the other, for as long as the page is open; keeps everything through reloads. */
export function startSender(store: AppStore): void {
  let busy = false;
  let timer: ReturnType<typeof setTimeout> | undefined;
  const plan = (milliseconds: number) => {
    clearTimeout(timer);
    timer = setTimeout(() => {
      void work();
    }, milliseconds);
  };

  async function settleConflict(item: OutboxItem, problem: Problem): Promise<void> {
    const current = problem.current as Job | undefined;
    const refusal = problem.refusal as Refusal | undefined;
    if (current !== undefined) await store.dispatch(api.util.upsertQueryData('job', item.code, current));
    if (refusal?.code === 'stale' && current !== undefined && item.act.kind === 'edit-sheet') {
      const sheet = current.sheet as unknown as Record<string, unknown>;
      const touched = Object.keys(item.act.changes);
      if (
        touched.every(
          (field) =>
            same(sheet[field], item.was[field]) ||
            same(sheet[field], (item.act as { changes: Record<string, unknown> }).changes[field]),
        )
      ) {
        store.dispatch(outbox.waitAgain({ id: item.id, basedOn: refusal.current }));
        return;
      }
      store.dispatch(
        outbox.refused({
          id: item.id,
          refusal: {
            title: problem.title,
            stale: true,
            current: refusal.current,
            theirs: Object.fromEntries(touched.map((field) => [field, sheet[field]])),
          },
        }),
      );
      return;
    }
    const details = (problem.errors ?? []).map((error) => `${error.path}: ${error.message}`).join('; ');
    store.dispatch(
      outbox.refused({
        id: item.id,
        refusal: {
          title: details === '' ? problem.title : `${problem.title} (${details})`,
          stale: refusal?.code === 'stale',
          current: refusal?.code === 'stale' ? refusal.current : null,
          theirs: null,
        },
      }),
    );
  }

  async function work(): Promise<void> {
    if (busy) return;
    const item = store.getState().outbox.items.find((candidate) => candidate.state === 'waiting');
    if (item === undefined) return;
    busy = true;
    store.dispatch(outbox.sending(item.id));
    const answer = await post(item);
    switch (answer.kind) {
      case 'done':
        store.dispatch(connection.set('here'));
        // The job as the server has it first, then the change goes from the outbox: between them nobody sees the old one.
        await store.dispatch(api.util.upsertQueryData('job', item.code, answer.job));
        store.dispatch(
          api.util.invalidateTags(
            item.act.kind === 'close' || item.act.kind === 'reopen' ? ['jobs', 'record'] : ['jobs'],
          ),
        );
        busy = false;
        store.dispatch(outbox.sent({ id: item.id, at: answer.job.updatedAt }));
        plan(0);
        break;
      case 'away':
        busy = false;
        store.dispatch(connection.set('away'));
        store.dispatch(outbox.waitAgain({ id: item.id }));
        plan(retryMilliseconds);
        break;
      case 'problem':
        store.dispatch(connection.set('here'));
        await settleConflict(item, answer.problem);
        busy = false;
        plan(0);
    }
  }

  async function watch(): Promise<void> {
    const answered = await fetch('/api/health', { signal: AbortSignal.timeout(5000), cache: 'no-store' })
      .then(async (response) => {
        await response.text();
        return response.ok;
      })
      .catch(() => false);
    const was = store.getState().connection;
    if (answered !== (was === 'here')) store.dispatch(connection.set(answered ? 'here' : 'away'));
    if (answered && was === 'away') plan(0);
    setTimeout(
      () => {
        void watch();
      },
      answered ? watchMilliseconds : retryMilliseconds,
    );
  }

  let seen = store.getState().outbox.items;
  store.subscribe(() => {
    const { items } = store.getState().outbox;
    if (items === seen) return;
    seen = items;
    keepItems(items);
    if (!busy && items.some((item) => item.state === 'waiting'))
      plan(store.getState().connection === 'away' ? retryMilliseconds : settleMilliseconds);
  });
  window.addEventListener('online', () => plan(0));
  if (seen.length > 0) plan(0);
  void watch();
}
