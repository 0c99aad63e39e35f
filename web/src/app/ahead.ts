import { askForTables } from '../controls/sheet.tsx';
import { stationCode } from '../job/station-code.ts';
import { api } from './api.ts';
import { pageCode } from './page-code.ts';
import type { AppStore } from './store.ts';

/** What a job's page shows, whichever station it is at. */
function askForJob(store: AppStore, code: string): void {
  store.dispatch(api.util.prefetch('job', code, {}));
  store.dispatch(api.util.prefetch('wholeSupplies', undefined, {}));
  store.dispatch(api.util.prefetch('knowledge', undefined, {}));
  store.dispatch(api.util.prefetch('cableBags', undefined, {}));
  store.dispatch(api.util.prefetch('record', undefined, {}));
}

/** The code of the page at an address, of a job's station with it. */
function codeAt(page: string | undefined, code: string | undefined, station: string | undefined): Promise<unknown>[] {
  if (page === undefined || !Object.hasOwn(pageCode, page) || (page === 'jobs' && code === undefined)) return [];
  const pieces: Promise<unknown>[] = [pageCode[page as keyof typeof pageCode].ask(), askForTables()];
  if (page === 'jobs' && station !== undefined && Object.hasOwn(stationCode, station))
    pieces.push(stationCode[station as keyof typeof stationCode].ask());
  return pieces;
}

/**
 * Asks for what the page at this address needs, code and data at once: asked for by the components that show it, each
 * would wait for the one around it. Who is in is asked for first, since nothing is drawn before that.
 */
export function askAhead(store: AppStore, pathname: string): void {
  const [page, code, station] = pathname.split('/').slice(1);
  store.dispatch(api.util.prefetch('access', undefined, {}));
  store.dispatch(api.util.prefetch('shop', undefined, {}));
  if (page === 'jobs' && code !== undefined && /^[A-Z]{2}-\d+$/.test(code)) askForJob(store, code);
  // A piece that does not come is asked for again by the component that needs it, which tells.
  for (const piece of codeAt(page, code, station)) void piece.catch(() => undefined);
}
