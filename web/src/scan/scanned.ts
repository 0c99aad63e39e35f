import type { Unit } from '@fairwatt/contract';

/** What the shop's own labels and stickers can be of. */
export interface Scannable {
  readonly codePrefix: string;
  readonly units: readonly Pick<Unit, 'id' | 'serial' | 'modelId' | 'state' | 'usedIn'>[];
  readonly bags: readonly { readonly id: string; readonly label: string }[];
}

/** Where something that was scanned leads, and what it is. */
export interface Scanned {
  readonly path: string;
  readonly what: string;
}

const longest = 100;
const plain = (text: string) => text.trim().toLowerCase();
/**
 * Addresses that tags carry. The rest of an address counts for nothing: the shop may have moved to another one since.
 */
const tagPath = /^\/(?:tags|jobs)\/([A-Za-z]{1,8}-\d{1,8})(?:\/([A-Za-z0-9]{1,8}))?\/?$/;

function fromAddress(text: string): Scanned | null {
  if (!/^https?:\/\//i.test(text) || !URL.canParse(text)) return null;
  const { pathname } = new URL(text);
  const [, code, cable] = tagPath.exec(pathname) ?? [];
  if (code === undefined) return null;
  return pathname.startsWith('/tags/') && cable !== undefined
    ? { path: `/tags/${code}/${cable}`, what: `cable ${cable} of ${code}` }
    : { path: `/jobs/${code}`, what: `job ${code}` };
}

/**
 * Where a scanned code leads: the cable or job of a tag, a job by its code, a unit of the shelf by its serial number, a
 * spare cable by its bag's label; else to the search for it. A foreign address leads nowhere: null.
 */
export function scanned(text: string, { codePrefix, units, bags }: Scannable): Scanned | null {
  const read = text.trim();
  if (/^[a-z][a-z0-9+.-]*:\/?\/?\S/i.test(read)) return fromAddress(read);
  const [, prefix, number] = /^([A-Za-z]{1,8})[- ]?(\d{1,8})$/.exec(read) ?? [];
  if (prefix !== undefined && plain(prefix) === plain(codePrefix))
    return { path: `/jobs/${codePrefix}-${number}`, what: `job ${codePrefix}-${number}` };
  const unit = read === '' ? undefined : units.find(({ serial }) => plain(serial) === plain(read));
  if (unit !== undefined)
    return unit.state === 'used' && unit.usedIn !== null
      ? { path: `/jobs/${unit.usedIn}`, what: `the job that this unit was fitted in, ${unit.usedIn}` }
      : { path: `/supplies?way=shelf&unit=${unit.id}`, what: 'a unit on the shelf' };
  const bag = bags.find(({ label }) => plain(label) === plain(read));
  if (bag !== undefined) return { path: `/cable-bags?cable=${bag.id}`, what: `spare cable ${bag.label}` };
  const words = read.slice(0, longest).toWellFormed();
  return words === '' ? null : { path: `/jobs?search=${encodeURIComponent(words)}`, what: `the search for ${words}` };
}
