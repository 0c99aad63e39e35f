/** A day that a label tells, as exactly as it tells it. */
export interface DateRead {
  readonly year: number;
  /** 1 to 12; null where only the year stands there. */
  readonly month: number | null;
}

/** No supply of this kind is older. */
const firstYear = 1980;

const monthOfWeek = (week: number): number => Math.min(12, Math.floor(((week - 1) * 7) / 30.44) + 1);

/** Ways in which makers print a date that needs no table of theirs. */
const ways: readonly (readonly [RegExp, (found: RegExpExecArray) => DateRead])[] = [
  // 2019-05, 2019/05/17, 2019.5, 201905, 20190517
  [
    /^((?:19|20)\d\d)[-/. ]?(0[1-9]|1[0-2]|[1-9](?=$|\D))(?:[-/. ]?(?:0?[1-9]|[12]\d|3[01]))?$/,
    ([, year, month]) => ({ year: Number(year), month: Number(month) }),
  ],
  // 05/2019, 17.05.2019
  [
    /^(?:(?:0?[1-9]|[12]\d|3[01])[-/. ])?(0?[1-9]|1[0-2])[-/. ]((?:19|20)\d\d)$/,
    ([, month, year]) => ({ year: Number(year), month: Number(month) }),
  ],
  // 2019 W21, W21 2019, WK21/19
  [
    /^((?:19|20)\d\d)[-/. ]?(?:w|wk|week)[-/. ]?(0?[1-9]|[1-4]\d|5[0-3])$/,
    ([, year, week]) => ({ year: Number(year), month: monthOfWeek(Number(week)) }),
  ],
  [
    /^(?:w|wk|week)[-/. ]?(0?[1-9]|[1-4]\d|5[0-3])[-/. ]((?:19|20)\d\d)$/,
    ([, week, year]) => ({ year: Number(year), month: monthOfWeek(Number(week)) }),
  ],
  // 2019 alone
  [/^((?:19|20)\d\d)$/, ([, year]) => ({ year: Number(year), month: null })],
];

/**
 * The date that stands on a label, where it stands there plainly; null for a code of the maker's own, and for a day
 * that is still to come.
 * @param today ISO date
 */
export function readDate(text: string, today: string): DateRead | null {
  const typed = text.trim().toLowerCase().replace(/\s+/g, ' ');
  for (const [pattern, read] of ways) {
    const found = pattern.exec(typed);
    if (found === null) continue;
    const date = read(found);
    const last = `${date.year}-${String(date.month ?? 1).padStart(2, '0')}`;
    return date.year >= firstYear && last <= today.slice(0, 7) ? date : null;
  }
  return null;
}

/** Years since a date, to one place; a year alone is taken at its middle. @param today ISO date */
export function yearsSince({ year, month }: DateRead, today: string): number {
  const [thisYear = 0, thisMonth = 1] = today.split('-').map(Number);
  const years = thisYear - year + (thisMonth - (month ?? 6)) / 12;
  return Math.max(0, Math.round(years * 10) / 10);
}
