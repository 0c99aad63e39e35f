import { within } from './patience.ts';

/** A server that takes longer to say how it is counts as away. */
const mostMilliseconds = 5000;

/** Whether the server answers now; never from what this browser keeps. */
export const isServerThere = (): Promise<boolean> =>
  within(mostMilliseconds, '/api/health', { cache: 'no-store' }, async (response) => {
    await response.text();
    return response.ok;
  }).catch(() => false);
