import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { ElementHandle } from 'puppeteer-core';
import { describe, expect, it } from 'vitest';
import type { Photo } from '@fairwatt/contract';
import type { Job } from '@fairwatt/core';
import { choose, fill, goTo, press, saved, seeText } from './application.ts';
import { openPage } from './browser.ts';
import { jobOf, newJob } from './messages.ts';
import { pressThe } from './pressing.ts';
import { application, chromium } from './running.ts';

describe('leads that carry no supply power', () => {
  it('are written down in one act, out and back one by one, and stand in the way of closing until then', async () => {
    const page = await openPage(chromium.browser);
    const folder = await mkdtemp(join(tmpdir(), 'fairwatt-leads-'));
    const stored = async () => (await (await fetch(`${application.url}/api/jobs/LQ-0146`)).json()) as Job;
    const states = async () => (await stored()).leads.map(({ what, state }) => `${what} ${state}`);
    await goTo(page, `${application.url}/jobs/LQ-0146/cables?way=leads`);
    await page.waitForSelector('.signs-empty button');
    await pressThe(page, '.signs-empty button');
    await saved(page);
    const count = (await stored()).leads.length;
    expect(count).toBeGreaterThanOrEqual(7);
    await press(page, 'Add a lead');
    await fill(page, `Name of Lead ${count + 1}`, 'Counter display lamp');
    await saved(page);
    await choose(page, 'Kind of Counter display lamp', 'lighting, 5 V');
    await seeText(page, '12 V burns every light of a 5 V line at once', '.signs-caution');
    await fill(page, 'Place of Counter display lamp', 'lower edge, arrow left');
    await pressThe(page, '[aria-label="State of Counter display lamp"] .ant-segmented-item:nth-child(3)');
    await press(page, `The other ${count} are not touched`);
    await saved(page);
    await seeText(page, '1 out now', '.page-side');
    expect((await states()).at(-1)).toBe('Counter display lamp out');
    await goTo(page, `${application.url}/jobs/LQ-0146/hand-over`);
    await press(page, 'Counter display lamp is unplugged and not back.');
    await page.waitForFunction(() => location.search === '?way=leads');
    await page.waitForSelector('[aria-label="State of Counter display lamp"]');
    await pressThe(page, '[aria-label="State of Counter display lamp"] .ant-segmented-item:nth-child(4)');
    await saved(page);
    expect(new Set((await states()).map((text) => text.split(' ').at(-1)))).toEqual(new Set(['untouched', 'back']));
    await press(page, 'Take out Counter display lamp of the record');
    await press(page, 'Undo');
    await saved(page);
    expect((await states()).at(-1)).toBe('Counter display lamp back');
    // A picture of it stands with it, by its name.
    await choose(page, 'Cable or lead', 'Counter display lamp');
    const picture = join(folder, 'lamp.png');
    await writeFile(picture, Buffer.from(await page.screenshot({ type: 'png' })));
    const input = (await page.waitForSelector(
      'input[aria-label="Choose pictures"]',
    )) as ElementHandle<HTMLInputElement>;
    await input.uploadFile(picture);
    await seeText(page, 'Counter display lamp · Mara T.', '.photos-photos');
    await saved(page);
    const photos = (await (await fetch(`${application.url}/api/jobs/LQ-0146/photos`)).json()) as Photo[];
    expect(photos.map(({ leadId }) => leadId)).toEqual([(await stored()).leads.at(-1)?.id]);
    // Another machine of that kind starts from them.
    const twin = await newJob('Another machine like the kiosk');
    await goTo(page, `${application.url}/jobs/${twin}/cables?way=leads`);
    await choose(page, 'Leads as in another job', 'LQ-0146');
    await page.waitForSelector('[aria-label="State of Counter display lamp"]');
    await saved(page);
    const copied = (await jobOf(twin)).leads;
    expect(copied.map(({ what }) => what)).toEqual((await stored()).leads.map(({ what }) => what));
    expect(new Set(copied.map(({ state }) => state))).toEqual(new Set(['recorded']));
    await rm(folder, { recursive: true });
    await page.browserContext().close();
  });
});
