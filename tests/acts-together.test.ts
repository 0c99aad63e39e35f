import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Act, Job } from '@fairwatt/core';
import { mostActsTogether, type ActsDone, type JobEvents, type Problem } from '@fairwatt/contract';
import { readWhole } from '../server/src/jobs/read.ts';
import { idOf, nameOf, secrets, shopOfAll } from './access-shop.ts';
import { actsFor } from './job-acts.ts';
import { startServer, type RunningServer } from './running-server.ts';

let server: RunningServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(async () => {
  await server.end();
});

const messageOf = (act: Act, by = 'mara') => ({ id: randomUUID(), by, act });
const note = (checkId: string, outcomeId = 'clean'): Act => ({
  kind: 'note-outcome',
  id: randomUUID(),
  checkId,
  outcomeId,
  instrumentId: null,
});
const words = (text: string, basedOn: number): Act => ({ kind: 'edit-sheet', changes: { words: text }, basedOn });
const together = <T = ActsDone>(code: string, messages: readonly unknown[]) =>
  server.call<T>(`/jobs/${code}/acts/together`, { messages });
const jobOf = async (code: string) => (await server.call<Job>(`/jobs/${code}`)).body;
const eventsOf = async (code: string) => (await server.call<JobEvents>(`/jobs/${code}/events`)).body.events;

/** A list in pieces of one to so many. */
function pieces<T>(list: readonly T[], most: number): T[][] {
  const cut: T[][] = [];
  for (let at = 0; at < list.length; at += cut.at(-1)!.length)
    cut.push(list.slice(at, at + 1 + ((at * 7 + list.length) % most)));
  return cut;
}

/** A job without what tells when it was made and under which code. */
const bare = (job: Job): unknown => {
  const times = new Set(['at', 'code', 'createdAt', 'updatedAt']);
  return JSON.parse(JSON.stringify(job, (key, value: unknown) => (times.has(key) ? null : value)));
};

describe('acts that come together', () => {
  it.each(['LQ-0142', 'LQ-0143', 'LQ-0144', 'LQ-0145', 'LQ-0146', 'LQ-0147'])(
    'make of a job like %s what they make one by one, with the same events, however they are cut',
    async (like) => {
      const acts = actsFor(await jobOf(like));
      const [alone, cut] = [await server.make(), await server.make()];
      const oneByOne: number[] = [];
      const heard: unknown[] = [];
      for (const act of acts) {
        const { status, body } = await server.act<Job & Problem>(alone.code, act);
        heard.push(status === 200 ? null : body.type);
        if (status === 200) oneByOne.push(body.revision);
      }
      const revisions: number[] = [];
      let left = acts.map((act) => messageOf(act));
      const stops: unknown[] = [];
      while (left.length > 0) {
        const [piece = []] = pieces(left, 17);
        const { status, body } = await together(cut.code, piece);
        expect(status).toBe(200);
        revisions.push(...body.revisions);
        stops.push(...body.revisions.map(() => null), ...(body.problem === null ? [] : [body.problem.type]));
        left = left.slice(body.revisions.length + (body.problem === null ? 0 : 1));
      }
      expect([revisions, stops]).toEqual([oneByOne, heard]);
      expect(bare(await jobOf(cut.code))).toEqual(bare(await jobOf(alone.code)));
      const done = async (code: string) => (await eventsOf(code)).map(({ kind, detail }) => [kind, detail]);
      expect((await done(cut.code)).slice(0, -1)).toEqual((await done(alone.code)).slice(0, -1));
      const { rows } = await server.pool.query<{ id: string }>('select id from job where code = $1', [cut.code]);
      expect((await readWhole(server.pool, Number(rows[0]!.id)))?.job).toEqual(await jobOf(cut.code));
    },
  );
  it('sent again, alone, in other company or three times at once, are done once', async () => {
    const { code } = await server.make();
    const [a, b, c] = [
      messageOf(note('look-dust')),
      messageOf(note('look-plugs', 'sound')),
      messageOf(note('look-card', 'live')),
    ];
    const first = await together(code, [a, b]);
    expect(first.body.problem).toBeNull();
    const answers = await Promise.all([together(code, [b, c]), together(code, [a, b, c]), together(code, [b, c])]);
    expect(answers.map(({ status }) => status)).toEqual([200, 200, 200]);
    const last = first.body.revisions[1]!;
    expect(answers.map(({ body }) => body.revisions)).toEqual([
      [last, last + 1],
      [last - 1, last, last + 1],
      [last, last + 1],
    ]);
    expect((await jobOf(code)).outcomes).toHaveLength(3);
    expect((await server.act(code, b.act, 'mara', b.id)).body.revision).toBe(last + 1);
  });
  it('are done up to the first that cannot be, which says why; those behind it are not touched', async () => {
    const { code } = await server.make();
    await server.act(code, words('Theirs', 1), 'joss');
    const sent = [messageOf(note('look-dust')), messageOf(words('Mine', 1)), messageOf(note('look-plugs', 'sound'))];
    const { body } = await together(code, sent);
    expect(body.revisions).toHaveLength(1);
    expect(body.problem).toMatchObject({ type: '/problems/stale', changed: { by: 'joss' } });
    expect(body.job.outcomes.map(({ checkId }) => checkId)).toEqual(['look-dust']);
    expect(body.job.sheet.words).toBe('Theirs');
    const used = await together(code, [{ ...sent[0]!, act: note('look-card', 'live') }]);
    expect(used.body).toMatchObject({ revisions: [], problem: { type: '/problems/id-taken' } });
  });
  it.each([
    ['no message', () => []],
    ['too many', () => Array.from({ length: mostActsTogether + 1 }, () => messageOf(note('look-dust')))],
    ['two people', () => [messageOf(note('look-dust')), messageOf(note('look-card', 'live'), 'joss')]],
    [
      'one id for two',
      () => [messageOf(note('look-dust')), messageOf(note('look-card', 'live'))].map((m) => ({ ...m, id: oneId })),
    ],
    ['closing among others', () => [messageOf(note('look-card', 'live')), messageOf({ kind: 'close', basedOn: 0 })]],
    [
      'one that is no act',
      () => [messageOf(note('look-card', 'live')), { id: randomUUID(), by: 'mara', act: { kind: 'fly' } }],
    ],
  ])('are refused as a whole with %s', async (_what, messages) => {
    const { code, revision } = await server.make();
    const { status, body } = await together<Problem>(code, messages());
    expect([status, body.type, body.errors?.[0]?.path.split('.')[0]]).toEqual([422, '/problems/invalid', 'messages']);
    expect((await jobOf(code)).revision).toBe(revision);
    expect((await together<Problem>('LQ-9999', [messageOf(note('look-card', 'live'))])).body.type).toBe(
      '/problems/no-such-job',
    );
  });
  it('with one that this person may not do are refused as a whole, and so are those of another person', async () => {
    const shop = await shopOfAll();
    const browser = await shop.bench.device().as(nameOf('trainee'), secrets.trainee);
    const by = idOf('trainee');
    const made = { id: randomUUID(), by, title: 'Of a trainee', client: '', words: '' };
    const { code, revision } = (await browser.ask<Job>('POST', '/jobs', made)).body;
    const finding = { kind: 'no-fault' as const, faultId: null, confirmed: false, note: '' };
    const send = (messages: readonly unknown[]) =>
      browser.ask<ActsDone & Problem>('POST', `/jobs/${code}/acts/together`, { messages });
    const mixed = await send([
      messageOf(note('look-card', 'live'), by),
      messageOf({ kind: 'set-finding', finding, basedOn: 0 }, by),
    ]);
    expect([mixed.status, mixed.body.type]).toEqual([403, '/problems/not-allowed']);
    const foreign = await send([messageOf(note('look-card', 'live'), idOf('owner'))]);
    expect([foreign.status, foreign.body.type]).toEqual([403, '/problems/not-you']);
    expect((await browser.ask<Job>('GET', `/jobs/${code}`)).body.revision).toBe(revision);
    expect((await send([messageOf(note('look-card', 'live'), by)])).body.revisions).toEqual([revision + 1]);
    await shop.server.end();
  });
});

const oneId = randomUUID();
