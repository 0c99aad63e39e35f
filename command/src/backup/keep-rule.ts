/** How many of the newest days, weeks and months are kept, one backup each. */
export const keptDays = 7;
export const keptWeeks = 5;
export const keptMonths = 12;

const dayOf = (at: Date) => at.toISOString().slice(0, 10);
const monthOf = (at: Date) => at.toISOString().slice(0, 7);
/** The Monday that begins the week. */
const weekOf = (at: Date) => dayOf(new Date(at.getTime() - ((at.getUTCDay() + 6) % 7) * 86_400_000));

/**
 * Which backups are kept: the newest of each of the last seven days, five weeks and twelve months that have one.
 * @param times instants of the backups, in any order
 * @returns those to keep; the newest of all is among them
 */
export function keptBackups(times: readonly string[]): Set<string> {
  const newestFirst = [...times].sort((a, b) => Date.parse(b) - Date.parse(a));
  const kept = new Set<string>();
  const keepOnePer = (periodOf: (at: Date) => string, most: number) => {
    const periods = new Set<string>();
    for (const time of newestFirst) {
      const period = periodOf(new Date(time));
      if (periods.has(period)) continue;
      if (periods.size === most) return;
      periods.add(period);
      kept.add(time);
    }
  };
  keepOnePer(dayOf, keptDays);
  keepOnePer(weekOf, keptWeeks);
  keepOnePer(monthOf, keptMonths);
  return kept;
}
