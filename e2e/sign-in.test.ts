import type { Page } from 'puppeteer-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Job } from '@fairwatt/core';
import type { Person } from '@fairwatt/contract';
import {
  becomeOwner,
  choose,
  control,
  fill,
  press,
  pressKey,
  saved,
  seeText,
  startApplication,
  visit,
} from './application.ts';
import type { Application } from './application.ts';
import { barriersOn } from './axe.ts';
import { openBrowser, openPage, type OpenBrowser } from './browser.ts';
import { pressThe } from './pressing.ts';

const owner = { name: 'Ilse V.', secret: '482913' };
const trainee = { name: 'Pim Vale', secret: '371926' };

let application: Application;
let chromium: OpenBrowser;
let page: Page;
/** What would keep somebody from becoming the owner. */
const beforeAnybody: string[] = [];

/** Asks the server as this browser is signed in. */
const ask = <T>(path: string, method = 'GET', body: unknown = null): Promise<T> =>
  page.evaluate(
    async (where: string, how: string, what: string | null) => {
      const response = await fetch(`/api${where}`, {
        method: how,
        ...(what === null ? {} : { headers: { 'content-type': 'application/json' }, body: what }),
      });
      return (response.status === 204 ? null : await response.json()) as unknown;
    },
    path,
    method,
    body === null ? null : JSON.stringify(body),
  ) as Promise<T>;

async function pickName(name: string): Promise<void> {
  const radio = await page.waitForSelector(`label.ant-radio-button-wrapper::-p-text(${name})`);
  await radio!.click();
}
/** Picks a name and types its PIN, whose last digit signs in. */
async function signInAs({ name, secret }: { readonly name: string; readonly secret: string }): Promise<void> {
  await pickName(name);
  await (await control(page, 'PIN, six digits')).type(secret);
}

beforeAll(async () => {
  application = await startApplication(false);
  chromium = await openBrowser();
  page = await openPage(chromium.browser, { technician: null });
  await visit(page, `${application.url}/jobs`);
  await seeText(page, 'This shop has no owner yet');
  beforeAnybody.push(...(await barriersOn(page)));
  await becomeOwner(page, application, owner.name, owner.secret);
  await seeText(page, 'No jobs yet');
});
afterAll(async () => {
  await chromium.close();
  await application.end();
});

const codeOfFirstJob = async (): Promise<string> =>
  (await ask<{ jobs: { code: string }[] }>('/jobs')).jobs[0]?.code ?? '';

describe('a shop where people sign in', () => {
  it('can be entered by everybody: on a bench and on a phone, light and dark', async () => {
    expect(beforeAnybody).toEqual([]);
    for (const theme of ['light', 'dark'] as const)
      for (const [width, height] of [
        [1280, 800],
        [390, 844],
      ] as const) {
        const stranger = await openPage(chromium.browser, { technician: null, theme, width, height });
        await visit(stranger, `${application.url}/jobs`);
        await seeText(stranger, 'Who works here?');
        expect([theme, width, await barriersOn(stranger)]).toEqual([theme, width, []]);
        await stranger.browserContext().close();
      }
  });
  it('takes somebody in with a role and a PIN', async () => {
    await visit(page, `${application.url}/people`);
    await press(page, 'Add somebody');
    await fill(page, 'Their name', trainee.name);
    await choose(page, 'Role of the new one', 'Trainee');
    await fill(page, 'New PIN or passphrase', '123456');
    await fill(page, 'Once more', '123456');
    await press(page, 'Add');
    await seeText(page, 'harder to guess', '.ant-modal');
    await fill(page, 'New PIN or passphrase', 'pimvalepimvale');
    await seeText(page, 'tried first by whoever guesses', '.ant-modal');
    await fill(page, 'New PIN or passphrase', 'gulls over the ferry');
    await seeText(page, 'Holds well.', '.ant-modal');
    const typeOf = async () =>
      (await control(page, 'New PIN or passphrase')).evaluate((element) => element.getAttribute('type'));
    expect(await typeOf()).toBe('password');
    await press(page, 'Show what I type');
    expect(await typeOf()).toBe('text');
    await fill(page, 'New PIN or passphrase', trainee.secret);
    await fill(page, 'Once more', trainee.secret);
    await press(page, 'Add');
    await page.waitForFunction(() => document.querySelector('.ant-modal') === null);
    await seeText(page, trainee.name);
    expect((await ask<Person[]>('/access/people')).map(({ role, secret }) => [role, secret])).toEqual([
      ['owner', 'pin'],
      ['trainee', 'pin'],
    ]);
    await seeText(page, 'added a person', 'section[aria-label="What was done"]');
  });

  it('changes the person in the middle of the work, and each word stands under whose hand it was', async () => {
    await visit(page, `${application.url}/jobs`);
    await page.keyboard.press('n');
    await (await control(page, 'Machine')).type('Kiosk of the pier');
    await page.keyboard.press('Enter');
    await seeText(page, 'Kiosk of the pier', '.job-head-jobHead');
    await fill(page, 'Client', 'Pier office');
    await press(page, owner.name);
    // The only other one is picked already.
    await (await control(page, 'PIN, six digits')).type(trainee.secret);
    await seeText(page, trainee.name, '.shell-bar');
    await fill(page, "In the client's words", 'Goes off at noon');
    await saved(page);
    const code = /jobs\/([A-Z]{2}-\d+)/.exec(page.url())?.[1] ?? '';
    const events = await ask<{ events: { by: string; detail: { changes?: Record<string, string> } }[] }>(
      `/jobs/${code}/events`,
    );
    const byField = events.events.flatMap(({ by, detail }) =>
      Object.keys(detail.changes ?? {}).map((field) => [field, by]),
    );
    expect(byField).toContainEqual(['client', 'ilse-v']);
    expect(byField).toContainEqual(['words', 'pim-vale']);
    expect((await ask<Job>(`/jobs/${code}`)).sheet).toMatchObject({ client: 'Pier office', words: 'Goes off at noon' });
  });

  it('lets a trainee record, and says who closes', async () => {
    const code = /jobs\/([A-Z]{2}-\d+)/.exec(page.url())?.[1] ?? '';
    await visit(page, `${application.url}/jobs/${code}/fault`);
    await page.waitForSelector('.lists-nextCheck');
    await pressKey(page, '1');
    await saved(page);
    const { events } = await ask<{ events: { by: string; kind: string }[] }>(`/jobs/${code}/events`);
    expect(events.at(0)).toMatchObject({ by: 'pim-vale' });
    const refused = await ask<{ type: string }>(`/jobs/${code}/acts`, 'POST', {
      id: crypto.randomUUID(),
      by: 'pim-vale',
      act: { kind: 'close', basedOn: 0 },
    });
    expect(refused.type).toBe('/problems/not-allowed');
    await visit(page, `${application.url}/people`);
    await seeText(page, 'Only an owner looks at them');
  });

  it('lets a second person sign what a trainee may not decide alone', async () => {
    const code = await codeOfFirstJob();
    await visit(page, `${application.url}/jobs/${code}/hand-over`);
    await pressThe(page, 'button[aria-label^="Sign off: "], button::-p-text(Sign off)');
    await (await page.waitForSelector('[aria-label^="Reason for leaving open"]'))!.type('The client takes it as it is');
    await press(page, 'Sign');
    await seeText(page, 'A second person signs', '.ant-modal');
    await (await control(page, 'Their PIN or passphrase')).type(owner.secret);
    await page.keyboard.press('Enter');
    await page.waitForFunction(() => document.querySelector('.ant-modal') === null);
    expect((await ask<Job>(`/jobs/${code}`)).signOffs.map(({ by, reason }) => [by, reason])).toEqual([
      ['ilse-v', 'The client takes it as it is'],
    ]);
    await seeText(page, trainee.name, '.shell-bar');
  });

  it('shows the way in above the work when a session is over, and sends what was typed', async () => {
    await visit(page, `${application.url}/jobs`);
    await seeText(page, 'Kiosk of the pier');
    await pressThe(page, 'a[href*="/jobs/FS-"]');
    await seeText(page, 'Kiosk of the pier', '.job-head-jobHead');
    const code = /jobs\/([A-Z]{2}-\d+)/.exec(page.url())?.[1] ?? '';
    await visit(page, `${application.url}/jobs/${code}/intake`);
    await ask('/access/session', 'DELETE');
    await fill(page, 'Client', 'Pier office, upper deck');
    await seeText(page, 'You were signed out');
    await press(page, 'Sign in again');
    await (await control(page, 'PIN, six digits')).type(trainee.secret);
    await page.waitForFunction(() => document.querySelector('.ant-modal') === null);
    await saved(page);
    expect((await ask<Job>(`/jobs/${code}`)).sheet.client).toBe('Pier office, upper deck');
  });

  it('says so by itself on a screen that nobody touches', async () => {
    await ask('/access/session', 'DELETE');
    await seeText(page, 'You were signed out');
    await press(page, 'Sign in again');
    await (await control(page, 'PIN, six digits')).type(trainee.secret);
    await page.waitForFunction(() => !document.body.innerText.includes('You were signed out'));
  });

  it('takes no PIN on a phone that is not enrolled, and takes it on one that is', async () => {
    await page.evaluate(() => fetch('/api/access/session', { method: 'DELETE' }));
    await visit(page, `${application.url}/people`);
    await signInAs(owner);
    await seeText(page, 'Devices');
    await fill(page, 'Name of the new device', 'Phone of the counter');
    await press(page, 'Enrol a device');
    const code = await page
      .waitForSelector('[role=status] .text-fig')
      .then((element) => element!.evaluate((one) => one.textContent));
    const phone = await openPage(chromium.browser, { technician: null });
    await phone.setViewport({ width: 390, height: 844 });
    await visit(phone, `${application.url}/jobs`);
    await fill(phone, 'Name', trainee.name);
    await fill(phone, 'PIN or passphrase', trainee.secret);
    await press(phone, 'Sign in');
    await seeText(phone, 'a PIN is not enough');
    await visit(phone, `${application.url}/enrol#${(code ?? '').replace('-', '')}`);
    await press(phone, 'Enrol it');
    await seeText(phone, 'Who works here?');
    await pressThe(phone, `label.ant-radio-button-wrapper::-p-text(${trainee.name})`);
    await (await control(phone, 'PIN, six digits')).type(trainee.secret);
    await seeText(phone, 'Kiosk of the pier');
    // Whoever holds it sees where he is signed in, and so does the owner.
    await press(phone, trainee.name);
    await press(phone, 'Where I am signed in');
    await seeText(phone, 'Phone of the counter', '.ant-modal');
    expect(await barriersOn(phone)).toEqual([]);
    await visit(page, `${application.url}/people`);
    await seeText(page, 'Phone of the counter', 'section[aria-label="Signed in"]');
    await page.evaluate(() => {
      const rows = [...document.querySelectorAll('section[aria-label="Signed in"] tr')];
      rows
        .find((row) => row.textContent.includes('Phone of the counter'))
        ?.querySelector('button')
        ?.click();
    });
    await page.waitForFunction(
      () => !document.querySelector('section[aria-label="Signed in"]')?.textContent.includes('Phone of the counter'),
    );
    await visit(phone, `${application.url}/jobs`);
    await seeText(phone, 'Who works here?');
    await pressThe(phone, `label.ant-radio-button-wrapper::-p-text(${trainee.name})`);
    await (await control(phone, 'PIN, six digits')).type(trainee.secret);
    await seeText(phone, 'Kiosk of the pier');
    // The owner ends it, and whoever holds it is out.
    const devices = await ask<{ id: string; name: string }[]>('/access/devices');
    await ask(`/access/devices/${devices.find(({ name }) => name === 'Phone of the counter')?.id ?? ''}`, 'DELETE');
    await visit(phone, `${application.url}/jobs`);
    await seeText(phone, 'This device is not enrolled');
  });
});
