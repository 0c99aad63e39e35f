import { describe, expect, it } from 'vitest';
import { drawnAt, goTo, press, seeText, settled } from './application.ts';
import { openPage } from './browser.ts';
import { pressThe } from './pressing.ts';
import { application, chromium } from './running.ts';

describe('the guide of connectors', () => {
  it('leads to a plug by what one sees, warns of what it must never go into, goes back answer by answer', async () => {
    const page = await openPage(chromium.browser);
    await goTo(page, `${application.url}/guide`);
    await press(page, 'A block of square holes');
    await press(page, '8');
    await press(page, 'No, one piece');
    await seeText(page, '2 are left');
    await press(page, 'The other row');
    await seeText(page, 'Card, 8-pin in one piece', 'h2');
    await seeText(page, 'Never into a processor inlet', '.signs-caution');
    await page.goBack();
    await seeText(page, 'Which row has the yellow wires?');
    await press(page, 'I cannot see that');
    await seeText(page, '2 are left');
    await press(page, 'Begin anew');
    await seeText(page, 'What does it look like?');
    await page.browserContext().close();
  });
  it('sets what is often confused side by side', async () => {
    const page = await openPage(chromium.browser);
    await goTo(page, `${application.url}/guide`);
    await press(page, 'Often confused');
    await seeText(page, 'Three pins with a gap are 5 V, four pins in a row are 12 V');
    expect(await page.$$eval('main li figure svg', (list) => list.length)).toBeGreaterThanOrEqual(40);
    await press(page, 'Lighting, addressable, 5 V');
    await seeText(page, 'every light on the line burns at once');
    await page.browserContext().close();
  });
  it('is one step from a connector of a job, and leads back to where it is recorded', async () => {
    const page = await openPage(chromium.browser);
    await goTo(page, `${application.url}/jobs/LQ-0147/cables?way=plan`);
    await settled(page);
    await press(page, 'what is this?');
    await seeText(page, 'Goes into');
    await press(page, 'Record it in LQ-0147');
    await drawnAt(page, '/jobs/LQ-0147/cables');
    await seeText(page, 'press the inlet that it is in', '[aria-label="Record by pointing"]');
    // From any station the guide knows the job, and a lead leads to its own connector.
    await goTo(page, `${application.url}/jobs/LQ-0147/measure`);
    await press(page, 'Guide');
    await page.waitForFunction(() => location.search === '?job=LQ-0147');
    await goTo(page, `${application.url}/jobs/LQ-0147/cables?way=leads`);
    await pressThe(page, 'a[aria-label^="What is this:"]');
    await seeText(page, 'Note it among the leads of LQ-0147');
    await page.browserContext().close();
  });
  it('passes over answers that make no sense in an address', async () => {
    const page = await openPage(chromium.browser);
    await goTo(page, `${application.url}/guide?look=block&pins=7&splits=nonsense&show=nothing`);
    await seeText(page, 'How many places with a contact?');
    await page.browserContext().close();
  });
});
