/** How a shop writes figures, money and days. */
export interface Manner {
  /** A language tag (BCP 47), such as `en-GB` or `de-DE`: its marks and its order, never its words for ours. */
  readonly locale: string;
}

/** Where a shop has not said otherwise. */
export const firstLocale = 'en-GB';

/** No tag of a language, and no name of a zone, is longer. */
const mostOfTag = 40;

function isKnown(tag: string, known: () => boolean): boolean {
  if (tag === '' || tag.length > mostOfTag) return false;
  try {
    return known();
  } catch (error) {
    if (error instanceof RangeError) return false;
    throw error;
  }
}

/** A language tag by which figures and days can be written here. */
export const isLocale = (tag: string): boolean =>
  isKnown(tag, () => Intl.NumberFormat.supportedLocalesOf(tag).length === 1);

/** A zone that clocks here know: an old browser lacks those that were named since. */
export const isTimeZone = (zone: string): boolean =>
  isKnown(zone, () => Intl.DateTimeFormat('en', { timeZone: zone }).resolvedOptions().timeZone !== '');

/** Figures are typed and read in these digits everywhere, whatever others a language has. */
const digits = { numberingSystem: 'latn' } as const;

interface Formats {
  readonly locale: string;
  readonly decimalMark: string;
  readonly count: Intl.NumberFormat;
  readonly percent: Intl.NumberFormat;
  readonly day: Intl.DateTimeFormat;
  readonly money: Map<string, Intl.NumberFormat>;
}

function formatsOf(locale: string): Formats {
  const count = new Intl.NumberFormat(locale, digits);
  return {
    locale,
    decimalMark: count.formatToParts(1.5).find(({ type }) => type === 'decimal')?.value ?? '.',
    count,
    percent: new Intl.NumberFormat(locale, { ...digits, style: 'percent' }),
    day: new Intl.DateTimeFormat(locale, {
      ...digits,
      calendar: 'gregory',
      day: 'numeric',
      month: 'short',
      year: 'numeric',
      timeZone: 'UTC',
    }),
    money: new Map(),
  };
}

/** Made once for a locale: each costs more than a hundred figures do. */
const made = new Map<string, Formats>();
const formatsFor = (locale: string): Formats => {
  const known = made.get(locale);
  if (known !== undefined) return known;
  const formats = formatsOf(locale);
  made.set(locale, formats);
  return formats;
};

let now = formatsFor(firstLocale);

/**
 * From now on all words are written as the shop writes them: for a page or a worker, which is of one shop.
 * @throws RangeError for what is no language tag
 */
export function writeAs({ locale }: Manner): void {
  now = formatsFor(locale);
}

/**
 * Writes something as a shop does, and as before afterwards: for a server, which has several.
 * @throws RangeError for what is no language tag
 */
export function writtenAs<T>(manner: Manner, write: () => T): T {
  const before = now;
  writeAs(manner);
  try {
    return write();
  } finally {
    now = before;
  }
}

/** A figure with so many places, rounded as it is and never grouped: what a meter shows can be compared with it. */
export const figureText = (figure: number, places = 0): string => figure.toFixed(places).replace('.', now.decimalMark);

/** A figure with as many places as it has, such as one that was typed. */
export const plainFigure = (figure: number): string => String(figure).replace('.', now.decimalMark);

/** How many there are, grouped: 3,600 rows. */
export const countText = (count: number): string => now.count.format(count);

/** A share as whole per cent. */
export const wholePercent = (share: number): string => now.percent.format(Math.round(share * 100) / 100);

/** Money in minor units, with its currency's sign where the language has one. */
export function moneyText(minor: number, currency: string): string {
  const known = now.money.get(currency);
  const format = known ?? new Intl.NumberFormat(now.locale, { ...digits, style: 'currency', currency });
  if (known === undefined) now.money.set(currency, format);
  return format.format(minor / 100);
}

/** Days from 1970-01-01 to a day of the Gregorian calendar (eras of 400 years, each begun in March; integers alone). */
function daysSince1970(year: number, month: number, day: number): number {
  const fromMarch = month > 2 ? year : year - 1;
  const era = Math.floor(fromMarch / 400);
  const yearOfEra = fromMarch - era * 400;
  const dayOfYear = Math.floor((153 * (month + (month > 2 ? -3 : 9)) + 2) / 5) + day - 1;
  const dayOfEra = yearOfEra * 365 + Math.floor(yearOfEra / 4) - Math.floor(yearOfEra / 100) + dayOfYear;
  return era * 146_097 + dayOfEra - 719_468;
}

const dayMilliseconds = 86_400_000;

/**
 * A day without a time, ISO date, as people write it. It is text that becomes text: no clock and no time zone can make
 * it another day.
 */
export function dayText(day: string): string {
  const [year = 1970, month = 1, dayOfMonth = 1] = day.split('-').map(Number);
  return now.day.format(daysSince1970(year, month, dayOfMonth) * dayMilliseconds);
}
