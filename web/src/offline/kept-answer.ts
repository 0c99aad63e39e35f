import type { Job } from '@fairwatt/core';

/** Marks an answer that was kept from earlier, since the server does not answer now. */
export const keptHeader = 'x-fairwatt-kept';

/** Where the service worker keeps answers. */
const answerCache = 'fairwatt-answers';

/**
 * Keeps a job as the server answered it to an act in place of what was fetched before, so that a page which is loaded
 * anew while the server is away shows what was confirmed. Where the browser keeps no answers nothing is done.
 */
export async function keepAnswer(job: Job): Promise<void> {
  if (!('caches' in window)) return;
  try {
    if (!(await caches.has(answerCache))) return;
    const cache = await caches.open(answerCache);
    const headers = { 'content-type': 'application/json' };
    await cache.put(`/api/jobs/${encodeURIComponent(job.code)}`, new Response(JSON.stringify(job), { headers }));
  } catch {
    // Full or forbidden: the page then shows what was fetched last, as before.
  }
}

/** Takes out every answer that was kept: whoever uses this browser next has to ask for them. */
export async function forgetAnswers(): Promise<void> {
  if ('caches' in window) await caches.delete(answerCache);
}
