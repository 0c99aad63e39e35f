import { randomUUID } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import Papa from 'papaparse';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Job } from '@fairwatt/core';
import {
  mostPhotoBytes,
  mostPhotos,
  type BagAdapter,
  type CableBags,
  type JobFile,
  type Photo,
  type Problem,
} from '@fairwatt/contract';
import { pagesOf, serveLabelPrinter, type PrinterFault, type ServedPrinter } from '@fairwatt/instruments';
import { startServer, type RunningServer } from './running-server.ts';

let server: RunningServer;
let printer: ServedPrinter;
let picture: Buffer;
const code = 'LQ-0147';
beforeAll(async () => {
  server = await startServer();
  printer = await serveLabelPrinter();
  const file = JSON.parse(
    await readFile(fileURLToPath(new URL('../demo/jobs/6-picture-house.json', import.meta.url)), 'utf8'),
  ) as JobFile;
  picture = Buffer.from(file.photos[0]!.data, 'base64');
});
afterAll(async () => {
  await printer.close();
  await server.end();
});

async function textOf(bytes: Uint8Array): Promise<{ pages: number; text: string }> {
  const document = await getDocument({ data: new Uint8Array(bytes), useSystemFonts: false, verbosity: 0 }).promise;
  let text = '';
  for (let page = 1; page <= document.numPages; page += 1)
    text += (await (await document.getPage(page)).getTextContent()).items
      .map((item) => ('str' in item ? item.str : ''))
      .join(' ');
  return { pages: document.numPages, text: text.replace(/\s+/g, ' ') };
}
const get = (path: string) => fetch(`${server.base}${path}`);
const pdf = async (path: string) => {
  const response = await get(path);
  expect(response.headers.get('content-type')).toBe('application/pdf');
  return textOf(new Uint8Array(await response.arrayBuffer()));
};

describe('paper', () => {
  it('has a tag for both ends of each cable, on sheets or on a roll', async () => {
    const sheet = await pdf(`/jobs/${code}/labels.pdf`);
    expect(sheet.pages).toBe(1);
    for (const told of [
      'C01 LQ-0147',
      'Supply end: MAIN',
      'goes to Main 24',
      'Device end: Fan hub',
      'Device end: Card 16-pin',
    ])
      expect(sheet.text).toContain(told);
    const roll = await pdf(`/jobs/${code}/labels.pdf?stock=roll`);
    expect(roll.pages).toBe(sheet.text.match(/(Supply|Device) end:/g)?.length);
    expect((await pdf(`/jobs/${code}/labels.pdf?stock=a4-24&skip=20`)).pages).toBe(2);
    expect((await pdf(`/jobs/${code}/labels.pdf?stock=a4-65`)).text).toContain('C01');
    expect((await server.call<Problem>(`/jobs/${code}/labels.pdf?stock=letter`)).status).toBe(422);
    // The supply that came has its own label, whether anything was said of it or not.
    const mark = await pdf(`/jobs/${code}/supply-label.pdf?stock=roll`);
    expect(mark.pages).toBe(1);
    expect(mark.text).toContain(code);
    expect(mark.text).toContain('NOT JUDGED');
  });
  it('has the schedule as PDF and as CSV, with what is open said first', async () => {
    // The old supply's ways are not printed as if they were those of the new one.
    expect((await pdf(`/jobs/${code}/cables.pdf`)).text).not.toContain('rear hole');
    await server.act(code, { kind: 'lay-cable', cable: 'main 0', way: 'rear hole, edge clip', basedOn: 0 });
    const { text } = await pdf(`/jobs/${code}/cables.pdf`);
    for (const told of [
      'Cables of Corvane 650 S',
      'Still open: Processor 8, second is not ticked as seated.',
      'CPU/CARD 1',
      'rear hole, edge clip',
      'Mara',
    ])
      expect(text).toContain(told);
    const { data } = Papa.parse<Record<string, string>>(await (await get(`/jobs/${code}/cables.csv`)).text(), {
      header: true,
      skipEmptyLines: true,
    });
    expect(data).toHaveLength(11);
    expect(data.find((row) => row['inlet'] === 'Card 16-pin')).toMatchObject({
      cable: 'C04 + C05 + C06',
      socket: 'CPU/CARD 3 + CPU/CARD 4 + CPU/CARD 5',
    });
    expect(data.find((row) => row['inlet'] === 'Main 24')).toMatchObject({
      cable: 'C01',
      source: 'own',
      socket: 'MAIN',
      plug: 'main-20+4',
      state: 'seated',
      seated_by: 'mara',
      slack_mm: '150',
    });
    expect(Number(data.find((row) => row['inlet'] === 'Main 24')?.['drop_mv'])).toBeGreaterThan(50);
  });
  it('is asked of a job that has cables, and of one that is there', async () => {
    const { code: fresh } = await server.make();
    for (const path of ['labels.pdf', 'cables.pdf', 'cables.csv']) {
      expect((await server.call<Problem>(`/jobs/${fresh}/${path}`)).body.type).toBe('/problems/no-cables');
      expect((await server.call<Problem>(`/jobs/LQ-9999/${path}`)).status).toBe(404);
    }
    const label = await server.call<Problem>(`/jobs/${fresh}/supply-label.pdf`);
    expect([label.status, label.body.type]).toEqual([409, '/problems/no-supply']);
  });
});

describe('the label printer', () => {
  const print = <T>(by = 'mara') => server.call<T>(`/jobs/${code}/labels/print`, { by });
  it('is entered by an owner, at a private address', async () => {
    expect((await print<Problem>()).body.type).toBe('/problems/no-printer');
    const set = <T>(url: string, by: string) => server.call<T>('/label-printer', { by, url }, 'PUT');
    expect((await set<Problem>('http://example.org/print', 'mara')).body.errors?.[0]?.path).toBe('url');
    expect((await set<Problem>(`http://127.0.0.1:${printer.port}/print`, 'joss')).status).toBe(403);
    expect((await set<Problem>('nowhere', 'mara')).status).toBe(422);
    expect((await set(`http://127.0.0.1:${printer.port}/print`, 'mara')).status).toBe(200);
  });
  it('takes one label to a page and says how many it printed', async () => {
    const { body } = await print<{ job: string; labels: number }>();
    expect(body).toEqual({ job: '1', labels: pagesOf(printer.printed[0]!.document) });
    expect((await textOf(printer.printed[0]!.document)).pages).toBe(body.labels);
    expect((await print<Problem>('nobody')).body.type).toBe('/problems/unknown-technician');
  });
  it('is told as failed when it is out of labels, breaks off or talks nonsense', async () => {
    for (const [fault, told] of [
      ['out-of-labels', /out of labels/],
      ['cut', /cannot be reached, or broke off/],
      ['nonsense', /does not say what it printed/],
    ] as const satisfies readonly (readonly [PrinterFault, RegExp])[]) {
      printer.fail(fault);
      const { status, body } = await print<Problem>();
      expect(status).toBe(502);
      expect(body.title).toMatch(told);
    }
    printer.fail('none');
    expect((await fetch(`http://127.0.0.1:${printer.port}/print`, { method: 'POST', body: 'no PDF' })).status).toBe(
      415,
    );
  });
});

describe('pictures', () => {
  const send = (bytes: Uint8Array, extra: Record<string, string> = {}, to = code) =>
    fetch(
      `${server.base}/jobs/${to}/photos?${new URLSearchParams({ by: 'mara', id: randomUUID(), ...extra }).toString()}`,
      { method: 'POST', headers: { 'content-type': 'image/webp' }, body: new Uint8Array(bytes) },
    );
  it('are kept, listed, shown and taken out, with an event each', async () => {
    const made = await server.make('Pictured');
    const id = randomUUID();
    const kept = (await (await send(picture, { id, caption: 'Behind the tray' }, made.code)).json()) as Photo[];
    expect(kept).toMatchObject([
      { id, caption: 'Behind the tray', widthPixels: 800, heightPixels: 560, bytes: picture.length, by: 'mara' },
    ]);
    await send(picture, { id, caption: 'again' }, made.code);
    expect((await server.call<Photo[]>(`/jobs/${made.code}/photos`)).body).toHaveLength(1);
    const shown = await get(`/jobs/${made.code}/photos/${id}`);
    expect([shown.headers.get('content-type'), Buffer.from(await shown.arrayBuffer()).equals(picture)]).toEqual([
      'image/webp',
      true,
    ]);
    expect((await get(`/jobs/${code}/photos/${id}`)).status).toBe(404);
    expect((await server.call<Photo[]>(`/jobs/${made.code}/photos/${id}?by=mara`, {}, 'DELETE')).body).toEqual([]);
    const { events } = (await server.call<{ events: { kind: string }[] }>(`/jobs/${made.code}/events`)).body;
    expect(
      events
        .map((event) => event.kind)
        .filter((kind) => kind.endsWith('photo'))
        .sort(),
    ).toEqual(['add-photo', 'drop-photo']);
  });
  it('that are none, too large, too many, of nobody or of a closed job are refused', async () => {
    const problem = async (answer: Response) => [answer.status, ((await answer.json()) as Problem).type];
    expect(await problem(await send(Buffer.from('<svg onload="alert(1)">')))).toEqual([422, '/problems/no-picture']);
    expect(await problem(await send(picture.subarray(0, 12)))).toEqual([422, '/problems/no-picture']);
    expect((await send(Buffer.concat([picture, Buffer.alloc(mostPhotoBytes)]))).status).toBe(413);
    expect(await problem(await send(picture, { by: 'nobody' }))).toEqual([403, '/problems/unknown-technician']);
    expect((await send(picture, { caption: 'x'.repeat(200) })).status).toBe(422);
    expect(await problem(await send(picture, {}, 'LQ-0137'))).toEqual([409, '/problems/closed']);
    const made = await server.make('Many pictures');
    for (let count = 0; count < mostPhotos; count += 1) expect((await send(picture, {}, made.code)).status).toBe(201);
    expect(await problem(await send(picture, {}, made.code))).toEqual([409, '/problems/too-many']);
  });
  it("travel with the job's file and come back the same", async () => {
    const file = (await server.call<JobFile>(`/jobs/${code}/file`)).body;
    expect(file.photos).toHaveLength(1);
    const again = (await server.call<Job>('/jobs/import?by=mara&as=new', file)).body;
    const back = (await server.call<JobFile>(`/jobs/${again.code}/file`)).body;
    expect(back.photos).toEqual(file.photos);
    expect({ ...back.job, code: '' }).toEqual({ ...file.job, code: '' });
    // Under another code it is another job, with pictures of its own.
    expect(
      (await server.call<Job>('/jobs/import?by=mara', { ...file, job: { ...file.job, code: 'LQ-7000' } })).status,
    ).toBe(201);
    const spoiled = async (photos: JobFile['photos']) =>
      (await server.call<Problem>('/jobs/import?by=mara&as=new', { ...file, photos })).body.errors;
    expect(await spoiled([{ ...file.photos[0]!, data: Buffer.from('no picture').toString('base64') }])).toEqual([
      { path: 'photos.0.data', message: 'is no image/webp' },
    ]);
    expect(await spoiled([file.photos[0]!, file.photos[0]!])).toEqual([
      { path: 'photos.1.id', message: 'is the id of another picture' },
    ]);
  });
});

describe('acts on cables', () => {
  it('keep pins, steps, their order, checks and rechecks in the database', async () => {
    const { body: before } = await server.call<Job>(`/jobs/${code}`);
    const hub = before.parts.find((part) => part.id === 'hub')!.inlets[0]!;
    const act = (done: Parameters<RunningServer['act']>[1]) => server.act(code, done);
    expect(
      (
        await act({
          kind: 'put-pin',
          basedOn: 0,
          pin: { inletId: hub.id, kitCableId: 'sata', copy: 1, plugIndex: 3, socketLabel: 'DRIVE 3' },
        })
      ).body.pins,
    ).toMatchObject([{ inletId: hub.id, version: before.revision + 1, by: 'mara' }]);
    expect(
      (
        await server.act<Problem>(code, {
          kind: 'put-pin',
          basedOn: 0,
          pin: { inletId: hub.id, kitCableId: 'sata', copy: 0, plugIndex: 0, socketLabel: null },
        })
      ).status,
    ).toBe(409);
    expect(
      (
        await server.act<Problem>(code, {
          kind: 'put-pin',
          basedOn: 0,
          pin: { inletId: hub.id, kitCableId: 'sata', copy: 0, plugIndex: -1, socketLabel: null },
        })
      ).status,
    ).toBe(422);
    await act({ kind: 'untick-step', stepId: 'take-out:strap' });
    await act({ kind: 'order-steps', phase: 'refit', stepIds: ['refit:tie', 'refit:screws-in'], basedOn: 0 });
    await act({ kind: 'recheck-seats', inletIds: [before.seats[0]!.inletId] });
    await act({ kind: 'edit-sheet', basedOn: before.sheet.version, changes: { hindrances: ['clips'] } });
    const { body: after } = await server.call<Job>(`/jobs/${code}`);
    expect(after.pins).toHaveLength(1);
    expect(after.steps.some((step) => step.stepId === 'take-out:strap')).toBe(false);
    expect(after.steps).toHaveLength(before.steps.length - 1);
    expect(after.stepOrders).toMatchObject([{ phase: 'refit', stepIds: ['refit:tie', 'refit:screws-in'] }]);
    expect(after.seats.find((seat) => seat.inletId === before.seats[0]!.inletId)?.rechecked).toMatchObject({
      by: 'mara',
    });
    expect(after.sheet.hindrances).toEqual(['clips']);
    // A part that is written anew keeps place and way, and the pin of its inlet.
    const part = after.parts.find((item) => item.id === 'hub')!;
    const { version, ...rest } = part;
    const moved = (
      await act({
        kind: 'put-part',
        basedOn: version,
        part: { ...rest, inlets: [{ ...hub, place: 'floor', wayMillimetres: 410 }] },
      })
    ).body;
    expect(moved.parts.find((item) => item.id === 'hub')?.inlets).toEqual([
      { ...hub, place: 'floor', wayMillimetres: 410 },
    ]);
    expect(moved.pins).toHaveLength(1);
    expect((await act({ kind: 'drop-pin', inletId: hub.id, basedOn: after.pins[0]!.version })).body.pins).toEqual([]);
  });
});

describe('adapters', () => {
  const adapter: BagAdapter = {
    id: randomUUID(),
    version: 0,
    label: 'AD-09',
    place: 'Drawer',
    takes: 'card-8',
    gives: 'card-8',
    legs: 1,
    moulded: false,
    addsMillimetres: 200,
    watts: null,
    count: 2,
  };
  const put = <T>(item: unknown, basedOn = 0, by = 'mara') =>
    server.call<T>('/cable-bags/adapters', { by, basedOn, adapter: item }, 'PUT');
  it('are entered, changed by whoever saw them, and taken out', async () => {
    expect((await put<CableBags>(adapter)).body.adapters.find((item) => item.id === adapter.id)).toEqual({
      ...adapter,
      version: 1,
    });
    expect((await put<Problem>(adapter)).status).toBe(200);
    expect((await put<Problem>({ ...adapter, count: 9 })).status).toBe(409);
    expect(
      (await put<CableBags>({ ...adapter, count: 0 }, 1)).body.adapters.find((item) => item.id === adapter.id)?.count,
    ).toBe(0);
    expect(
      (await server.call<CableBags>(`/cable-bags/adapters/${adapter.id}?by=mara`, {}, 'DELETE')).body.adapters.some(
        (item) => item.id === adapter.id,
      ),
    ).toBe(false);
    expect((await server.call<Problem>(`/cable-bags/adapters/${adapter.id}?by=mara`, {}, 'DELETE')).status).toBe(404);
    expect((await put<Problem>(adapter, 0, 'nobody')).body.type).toBe('/problems/unknown-technician');
  });
  it("of a maker's own plug keep the name of the inlet that they fit", async () => {
    const own = { ...adapter, id: randomUUID(), takes: 'main-24', gives: 'main-own', ownPlug: 'Desk line, 10 pins' };
    const { adapters } = (await put<CableBags>(own)).body;
    expect(adapters.find((item) => item.id === own.id)).toEqual({ ...own, version: 1 });
  });
  it('that could burn something are not taken in', async () => {
    const refused = async (changes: Partial<BagAdapter>) =>
      (await put<Problem>({ ...adapter, id: randomUUID(), ...changes })).body.errors?.[0];
    expect(await refused({ takes: 'peripheral-4', gives: 'card-6' })).toMatchObject({
      path: 'adapter.gives',
      message: expect.stringMatching(/a card from drive plugs/) as string,
    });
    expect(await refused({ takes: 'peripheral-4', gives: 'sata', moulded: true })).toMatchObject({
      path: 'adapter.moulded',
    });
    expect(await refused({ gives: 'card-16', legs: 2, watts: 600 })).toMatchObject({ path: 'adapter.legs' });
    expect(await refused({ takes: 'main-24', gives: 'main-own' })).toMatchObject({ path: 'adapter.ownPlug' });
    expect(await refused({ takes: 'main-24', gives: 'main-20', ownPlug: 'Desk' })).toMatchObject({
      path: 'adapter.ownPlug',
    });
    expect(await refused({ addsMillimetres: -10 })).toMatchObject({ path: 'adapter.addsMillimetres' });
  });
});
