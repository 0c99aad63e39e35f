import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { bareReading, boardSensorId, type Act, type Choice, type ChoiceFacts, type Job } from '@fairwatt/core';
import { jobFileSchema, presentJobFile, type JobFile, type JobList, type Problem } from '@fairwatt/contract';
import { startServer, type RunningServer } from '../../../tests/running-server.ts';

const demo = fileURLToPath(new URL('../../../demo', import.meta.url));
let running: RunningServer;
let pool: RunningServer['pool'];
let call: RunningServer['call'];
let act: RunningServer['act'];
let make: RunningServer['make'];

beforeAll(async () => {
  running = await startServer();
  ({ pool, call, act, make } = running);
});
afterAll(async () => {
  await running.end();
});

const title = (value: string, basedOn: number): Act => ({ kind: 'edit-sheet', changes: { title: value }, basedOn });
/** What was known of a supply at a choice, and a choice to keep the one that came. */
const candidate: ChoiceFacts = {
  of: 'candidate',
  class: 'fits',
  ratingWatts: 650,
  shape: 'ATX',
  guide: '3.x',
  grade: 'gold',
  price: { minor: 8990, currency: 'EUR', asOf: null },
  onShelf: 1,
  runningAYear: { minor: 3120, currency: 'EUR' },
  loadShare: null,
  cables: 5,
  openOptional: 0,
  fullest: null,
};
const keeping = { kind: 'keep', modelId: null, reason: '', known: [] } as const;
const count = async (sql: string, ...values: unknown[]) =>
  Number((await pool.query<{ n: string }>(`select count(*) as n from ${sql}`, values)).rows[0]!.n);

describe('reading', () => {
  it('lists the demo jobs with their stations, searches and filters', async () => {
    const all = await running.list();
    expect(all).toMatchObject({ total: 68, more: false, newer: null });
    const older = (await call<JobList>(`/jobs?after=${all.older!}`)).body;
    expect(older.jobs).toHaveLength(18);
    expect(older).toMatchObject({ total: 68, older: null });
    expect((await call<JobList>(`/jobs?before=${older.newer!}`)).body.jobs).toEqual(all.jobs);
    expect((await call<JobList>('/jobs?state=open')).body.jobs.map((job) => job.code).sort()).toEqual([
      'LQ-0141',
      'LQ-0142',
      'LQ-0143',
      'LQ-0144',
      'LQ-0145',
      'LQ-0146',
      'LQ-0147',
    ]);
    expect(all.jobs.every((job) => job.stations.length === 7)).toBe(true);
    expect((await call<JobList>('/jobs?search=encoder')).body.jobs.map((job) => job.code)).toEqual(['LQ-0142']);
    expect((await call<JobList>('/jobs?search=100%25')).body.total).toBe(0);
    expect((await call<JobList>('/jobs?state=closed')).body.total).toBe(61);
    expect((await call<Problem>('/jobs?after=nowhere')).status).toBe(422);
  });
  it('answers 404 as a problem document for a job that does not exist, whatever its code looks like', async () => {
    for (const code of ['LQ-9999', 'nonsense', '%27%3B drop table job']) {
      const answer = await call<Problem>(`/jobs/${code}`);
      expect(answer.status).toBe(404);
      expect(answer.type).toContain('application/problem+json');
      expect(answer.body.type).toBe('/problems/no-such-job');
    }
  });
  it('gives shop, supplies and knowledge in their schemas', async () => {
    expect((await call<{ technicians: unknown[] }>('/shop')).body.technicians).toHaveLength(3);
    expect((await call<unknown[]>('/supplies')).body).toHaveLength(29);
    expect((await call<{ faults: unknown[] }>('/knowledge')).body.faults).toHaveLength(34);
  });
});

describe('acting', () => {
  it('makes a job with the next code, once for one message', async () => {
    const message = { id: randomUUID(), by: 'mara', title: 'Once', client: '', words: '' };
    const first = await call<Job>('/jobs', message);
    const again = await call<Job>('/jobs', message);
    expect(first.status).toBe(201);
    expect(first.body.code).toMatch(/^LQ-\d{4}$/);
    expect(again.body.code).toBe(first.body.code);
  });
  it('writes an event with every change, in the same transaction, and none with a refused one', async () => {
    const { code } = await make();
    const events = () => count('job_event join job on job.id = job_event.job_id where code = $1', code);
    const before = await events();
    expect((await act(code, title('Renamed', 1))).status).toBe(200);
    expect(await events()).toBe(before + 1);
    expect((await act(code, title('Late', 1))).status).toBe(409);
    expect(
      (
        await act(code, {
          kind: 'take-reading',
          reading: {
            id: randomUUID(),
            phase: 'before',
            subject: '+12',
            condition: 'idle',
            value: { kind: 'figure', figure: 12 },
            instrumentId: 'nobodys',
            ...bareReading,
          },
        })
      ).status,
    ).toBe(422);
    expect(await events()).toBe(before + 1);
    const told = await call<{ events: { kind: string; by: string }[] }>(`/jobs/${code}/events`);
    expect(told.body.events[0]).toMatchObject({ kind: 'edit-sheet', by: 'mara' });
  });
  it('answers a stale update with 409 and the current state', async () => {
    const { code } = await make();
    await act(code, title('Theirs', 1));
    const late = await act<Problem & { current: Job; refusal: unknown }>(code, title('Mine', 1), 'joss');
    expect(late.status).toBe(409);
    expect(late.body.current.sheet).toMatchObject({ title: 'Theirs', version: 2 });
    expect(late.body.refusal).toEqual({ code: 'stale', subject: 'sheet', basedOn: 1, current: 2 });
  });
  it('does a message that comes twice once', async () => {
    const { code } = await make();
    const id = randomUUID();
    const noted: Act = { kind: 'note-outcome', id: randomUUID(), checkId: 'look-dust', outcomeId: 'clean' };
    await act(code, noted, 'mara', id);
    const again = await act(code, noted, 'mara', id);
    expect(again.status).toBe(200);
    expect(again.body.outcomes).toHaveLength(1);
  });
  it('lets one of two writers at the same moment win and tells the other', async () => {
    const { code } = await make();
    const answers = await Promise.all(['One', 'Two', 'Three', 'Four'].map((name) => act(code, title(name, 1))));
    expect(answers.map((answer) => answer.status).sort()).toEqual([200, 409, 409, 409]);
  });
  it('refuses a technician who is not of the shop', async () => {
    const { code } = await make();
    const answer = await act<Problem>(code, title('X', 1), 'stranger');
    expect(answer.status).toBe(403);
    expect(answer.body.errors?.[0]?.path).toBe('by');
  });
  it.each([
    [
      'letters for a number',
      { kind: 'edit-sheet', changes: { machineYears: 'old' }, basedOn: 1 },
      'act.changes.machineYears',
    ],
    ['a negative age', { kind: 'edit-sheet', changes: { supplyYears: -1 }, basedOn: 1 }, 'act.changes.supplyYears'],
    ['an empty title', { kind: 'edit-sheet', changes: { title: '  ' }, basedOn: 1 }, 'act.changes.title'],
    ['an unknown field', { kind: 'edit-sheet', changes: { colour: 'blue' }, basedOn: 1 }, 'act.changes.colour'],
    ['an unknown act', { kind: 'explode' }, 'act.kind'],
    [
      'what was known of a supply of the list, at a choice to keep what is there',
      { kind: 'set-choice', choice: { ...keeping, facts: candidate }, basedOn: 0 },
      'act.choice.facts',
    ],
    [
      '230 V on +12',
      {
        kind: 'take-reading',
        reading: {
          id: randomUUID(),
          phase: 'before',
          subject: '+12',
          condition: 'idle',
          value: { kind: 'figure', figure: 230 },
          instrumentId: 'bench-meter',
          ...bareReading,
        },
      },
      'act.reading.value.figure',
    ],
    [
      'a supply rated nothing',
      {
        kind: 'put-supply',
        supply: {
          name: '',
          label: {
            ratingWatts: 0,
            rails: [],
            combined: [],
            shape: 'ATX',
            guide: '2.x',
            grade: 'none',
            modular: 'fixed',
            has16Pin: false,
          },
        },
        basedOn: 0,
      },
      'act.supply.label.ratingWatts',
    ],
  ])('names the field: %s', async (_name, wrong, path) => {
    const { code } = await make();
    const answer = await call<Problem>(`/jobs/${code}/acts`, { id: randomUUID(), by: 'mara', act: wrong });
    expect(answer.status).toBe(422);
    expect(answer.body.errors?.map((error) => error.path)).toContain(path);
    expect(JSON.stringify(answer.body)).not.toMatch(/\bat .*\.(ts|js):\d+|node_modules|select |insert /);
  });
  it('takes a supply without rails and says cannot tell by itself later', async () => {
    const { code } = await make();
    const answer = await act(code, {
      kind: 'put-supply',
      supply: {
        name: 'Bare',
        label: {
          ratingWatts: 300,
          rails: [],
          combined: [],
          shape: 'ATX',
          guide: '2.x',
          grade: 'none',
          modular: 'fixed',
          has16Pin: false,
        },
      },
      basedOn: 0,
    });
    expect(answer.body.supply?.label.rails).toEqual([]);
  });
  it.each<[string, Omit<Choice, 'version' | 'by' | 'at'>]>([
    ['figures', { kind: 'replace', modelId: 'corvane-650-s', reason: '', facts: candidate, known: [] }],
    ['what was read of it', { ...keeping, facts: { of: 'present', measuredWell: true } }],
    ['lines, as an earlier version wrote them', { ...keeping, known: ['650 W, on the shelf'] }],
  ])('keeps what was known at a choice: %s', async (_name, choice) => {
    const { code } = await make();
    const answer = await act(code, { kind: 'set-choice', choice, basedOn: 0 });
    expect(answer.status).toBe(200);
    const kept = await call<Job>(`/jobs/${code}`);
    expect(kept.body.choice).toEqual({ ...choice, version: 2, by: 'mara', at: expect.any(String) as string });
    const file = await call(`/jobs/${code}/file`);
    expect(jobFileSchema.parse(presentJobFile(file.body)).job.choice).toEqual(kept.body.choice);
  });
  it('keeps a script in the notes as the text it is', async () => {
    const { code } = await make();
    const text = '<script>alert("x")</script><img src=x onerror=alert(1)>';
    expect((await act(code, { kind: 'edit-sheet', changes: { words: text }, basedOn: 1 })).body.sheet.words).toBe(text);
  });
  it('does not close over open points', async () => {
    const { code } = await make();
    const answer = await act<Problem>(code, { kind: 'close', basedOn: 1 });
    expect(answer.status).toBe(409);
    expect(answer.body.type).toBe('/problems/open-points');
  });
});

describe('job files', () => {
  const file = (name = '0-harbour-office') =>
    jobFileSchema.parse(presentJobFile(JSON.parse(readFileSync(`${demo}/jobs/${name}.json`, 'utf8'))));
  const send = (body: unknown, query = 'by=mara&as=new') => call<Problem & Job>(`/jobs/import?${query}`, body);

  it.each([
    '0-harbour-office',
    '1-radio-playout',
    '2-print-studio',
    '3-tide-laboratory',
    '4-school-library',
    '5-ticket-kiosk',
  ])('round trip without loss: %s', async (name) => {
    const original = file(name);
    const exported = await call<JobFile>(`/jobs/${original.job.code}/file`);
    expect(exported.body.job).toEqual(original.job);
    expect(exported.body.supplies).toEqual(original.supplies);
    const back = await send(exported.body);
    expect(back.status).toBe(201);
    const again = await call<JobFile>(`/jobs/${back.body.code}/file`);
    expect({ ...again.body.job, code: original.job.code }).toEqual(original.job);
    expect({ ...again.body, exportedAt: '', job: null }).toEqual({ ...exported.body, exportedAt: '', job: null });
  });
  it('does not overwrite a job of the same code', async () => {
    const answer = await send(file(), 'by=mara');
    expect(answer.status).toBe(409);
    expect(answer.body.type).toBe('/problems/code-taken');
  });
  it.each<[string, (copy: JobFile) => unknown, string]>([
    ['another version', (copy) => ({ ...copy, version: 7 }), 'version'],
    ['another format', (copy) => ({ ...copy, format: 'something' }), 'format'],
    ['unknown fields', (copy) => ({ ...copy, job: { ...copy.job, secret: 1 } }), 'job.secret'],
    [
      'a tick on an inlet that is not there',
      (copy) => ({
        ...copy,
        job: { ...copy.job, seats: copy.job.seats.map((seat) => ({ ...seat, inletId: 'ghost' })) },
      }),
      'job.seats.0.inletId',
    ],
    ['a supply that is not in the file', (copy) => ({ ...copy, supplies: [] }), 'job.choice.modelId'],
    ['a technician that is not in the file', (copy) => ({ ...copy, technicians: [] }), 'job.seats.0.by'],
    ['nothing at all', () => ({}), 'format'],
  ])('refuses %s with the field', async (_name, change, path) => {
    const before = await count('job');
    const answer = await send(change(file()));
    expect(answer.status).toBe(422);
    expect(answer.body.errors?.map((error) => error.path)).toContain(path);
    expect(await count('job')).toBe(before);
  });
  it('refuses a file that is cut off', async () => {
    const answer = await send(JSON.stringify(file()).slice(0, 900));
    expect([answer.status, answer.body.type]).toEqual([400, '/problems/not-json']);
  });
  it('refuses a file of 50 MB', async () => {
    const answer = await send(
      JSON.stringify({ format: 'fairwatt-job', version: 1, filling: 'x'.repeat(50 * 1024 * 1024) }),
    );
    expect([answer.status, answer.body.type]).toEqual([413, '/problems/too-large']);
  });
  it('carries what a board’s own sensor told, which is no instrument of any shop', async () => {
    const made = await make();
    const reading = { ...bareReading, id: randomUUID(), phase: 'before', subject: '+5', condition: 'idle' } as const;
    const told: Act = {
      kind: 'take-reading',
      reading: { ...reading, instrumentId: boardSensorId, value: { kind: 'figure', figure: 4.9 } },
    };
    expect((await act(made.code, told)).status).toBe(200);
    const file = (await call<JobFile>(`/jobs/${made.code}/file`)).body;
    expect(file.instruments).toEqual([]);
    expect((await send(file)).body.readings).toMatchObject([{ instrumentId: boardSensorId, subject: '+5' }]);
    const { instruments } = (await call<{ instruments: { id: string; kind: string }[] }>('/shop')).body;
    expect(instruments.map(({ id }) => id)).not.toContain(boardSensorId);
    const taken = { by: 'mara', was: null, instrument: { ...instruments[0], id: boardSensorId } };
    expect((await call<Problem>('/shop/instruments', taken, 'PUT')).body.errors?.[0]?.path).toBe('instrument.id');
  });
  it('keeps a script in an imported note as text', async () => {
    const copy = file('4-school-library');
    const words = '<script>document.title="owned"</script>';
    const answer = await send({ ...copy, job: { ...copy.job, sheet: { ...copy.job.sheet, words } } });
    expect(answer.body.sheet.words).toBe(words);
  });
});

describe('the schema holds the truth', () => {
  const jobId = async () => (await pool.query<{ id: number }>("select id from job where code = 'LQ-0142'")).rows[0]!.id;
  it.each([
    ['a figure and a code at once', "update job_reading set code = 'absent' where job_id = $1"],
    [
      'a plug into an inlet that is not there',
      "update job_cable_plug set inlet_id = 'ghost' where job_id = $1 and inlet_id is not null",
    ],
    [
      'two answers to one check',
      'insert into job_outcome (job_id, id, position, check_id, outcome_id, by, at) values ($1, ' +
        "gen_random_uuid(), 99, 'd-swap', 'same', 'mara', now())",
    ],
    ['a closed job without who closed it', "update job set state = 'closed' where id = $1"],
    [
      'a replacement without its model',
      "insert into job_choice (job_id, version, kind, reason, by, at) values ($1, 1, 'replace', '', 'mara', now())",
    ],
    [
      'an event by nobody',
      'insert into job_event (id, job_id, at, by, kind, detail) values (gen_random_uuid(), $1, ' +
        "now(), 'nobody', 'x', '{}')",
    ],
  ])('refuses %s', async (_name, sql) => {
    await expect(pool.query(sql, [await jobId()])).rejects.toThrow(/constraint|violates/);
  });
});

describe('files of logging meters', () => {
  const log = (name: string) => ({
    id: randomUUID(),
    name,
    phase: 'before' as const,
    rows: 2,
    skipped: 0,
    lastsSeconds: 1,
    eventsInAll: 0,
    events: [],
    channels: [
      {
        rail: '+12' as const,
        count: 2,
        meanVolts: 12,
        lowestVolts: 11.9,
        highestVolts: 12.1,
        deviationVolts: 0.1,
        noiseVolts: 0.1,
        driftVoltsPerHour: 0,
        outsideSeconds: 0,
        curve: { seconds: [0, 1], low: [11.9, 12], high: [12, 12.1] },
      },
    ],
  });
  const put = (code: string, id: string, text: string) =>
    fetch(`${running.base}/jobs/${code}/logs/${id}/original`, {
      method: 'PUT',
      headers: { 'content-type': 'text/csv' },
      body: text,
    });
  const get = async (code: string, id: string) => {
    const answer = await fetch(`${running.base}/jobs/${code}/logs/${id}/original`);
    return answer.ok ? answer.text() : answer.status;
  };
  it('stay when an earlier log is removed, come back with a removed one, and travel with the job', async () => {
    const { code } = await make();
    const [first, second] = [log('first.csv'), log('second.csv')];
    for (const one of [first, second])
      expect((await act(code, { kind: 'put-log', log: one, basedOn: 0 })).status).toBe(200);
    for (const one of [first, second])
      expect((await put(code, one.id, `seconds,12\n0,${one.name}\n`)).status).toBe(204);
    const { logs } = (await call<Job>(`/jobs/${code}`)).body;
    await act(code, { kind: 'drop-log', logId: first.id, basedOn: logs[0]!.version });
    expect(await get(code, second.id)).toContain('second.csv');
    expect((await call<JobFile>(`/jobs/${code}/file`)).body.originals.map((item) => item.logId)).toEqual([second.id]);
    await act(code, { kind: 'put-log', log: first, basedOn: 0 });
    expect(await get(code, first.id)).toContain('first.csv');
    const file = (await call<JobFile>(`/jobs/${code}/file`)).body;
    expect(file.originals).toHaveLength(2);
    const copy = (await call<Job>('/jobs/import?by=mara&as=new', file)).body;
    expect(copy.logs.map((item) => item.name)).toEqual(['second.csv', 'first.csv']);
    expect(await get(copy.code, second.id)).toContain('second.csv');
  });
  it('tell when the supply was off, and are read back so', async () => {
    const { code } = await make();
    const off = {
      rail: '+12' as const,
      kind: 'off' as const,
      atSeconds: 1,
      lastsSeconds: 4,
      volts: null,
      fromVolts: null,
    };
    const one = { ...log('night.csv'), events: [off], eventsInAll: 1 };
    expect((await act(code, { kind: 'put-log', log: one, basedOn: 0 })).status).toBe(200);
    expect((await call<Job>(`/jobs/${code}`)).body.logs[0]!.events).toEqual([off]);
  });
  it('are refused where there is no such log, when too large and when they are no text', async () => {
    const { code } = await make();
    expect((await put(code, randomUUID(), 'a,b')).status).toBe(404);
    const one = log('one.csv');
    await act(code, { kind: 'put-log', log: one, basedOn: 0 });
    expect((await put(code, one.id, 'x'.repeat(1_100_000))).status).toBe(413);
    expect((await put(code, one.id, 'a\0b')).status).toBe(422);
    expect(await get(code, one.id)).toBe(404);
    expect(await get(code, 'nonsense')).toBe(422);
  });
});

describe('probe walks', () => {
  it('keep what proved each ground, in a job file as well', async () => {
    const { code } = await make();
    const pins = [
      { pin: 1, value: { kind: 'figure' as const, figure: 12.02 } },
      { pin: 5, value: { kind: 'figure' as const, figure: 0 }, ground: { kind: 'rail' as const, volts: 12.01 } },
      {
        pin: 7,
        value: { kind: 'figure' as const, figure: 0.01 },
        ground: { kind: 'continuity' as const, heard: false },
      },
      { pin: 8, value: { kind: 'figure' as const, figure: 0 } },
    ];
    const probe = { id: randomUUID(), label: 'Borrowed', plug: 'card-8' as const, pins, note: '' };
    expect((await act(code, { kind: 'put-probe', probe, basedOn: 0 })).status).toBe(200);
    expect((await call<Job>(`/jobs/${code}`)).body.probes[0]!.pins).toEqual(pins);
    const file = (await call<JobFile>(`/jobs/${code}/file`)).body;
    const copy = (await call<Job>('/jobs/import?by=mara&as=new', file)).body;
    expect(copy.probes[0]!.pins).toEqual(pins);
  });
  it('refuse a ground proved by volts that no supply gives', async () => {
    const { code } = await make();
    const pins = [{ pin: 5, value: { kind: 'figure', figure: 0 }, ground: { kind: 'rail', volts: 400 } }];
    const answer = await act(code, {
      kind: 'put-probe',
      probe: { id: randomUUID(), label: 'Borrowed', plug: 'card-8', pins, note: '' },
      basedOn: 0,
    } as never);
    expect(answer.status).toBe(422);
  });
});

describe('notes', () => {
  it('are kept with the job, travel with it, and are refused where they say too much', async () => {
    const { code } = await make();
    const note = { id: randomUUID(), text: 'Scorched label', photoId: null, inReport: true };
    expect((await act(code, { kind: 'put-note', note, basedOn: 0 })).status).toBe(200);
    const told = (await call<Job>(`/jobs/${code}`)).body;
    expect(told.notes).toMatchObject([{ ...note, by: 'mara' }]);
    expect(told.updatedBy).toBe('mara');
    const file = (await call<JobFile>(`/jobs/${code}/file`)).body;
    const copy = (await call<Job>('/jobs/import?by=mara&as=new', file)).body;
    expect(copy.notes).toEqual(told.notes);
    expect(copy.updatedBy).toBe('mara');
    const long = { ...note, id: randomUUID(), text: 'x'.repeat(1001) };
    expect((await act(code, { kind: 'put-note', note: long, basedOn: 0 })).status).toBe(422);
    const gone = { kind: 'drop-note', noteId: note.id, basedOn: told.notes[0]!.version } as const;
    expect((await act(code, gone)).status).toBe(200);
    expect((await call<Job>(`/jobs/${code}`)).body.notes).toEqual([]);
  });
});
