/** Volts as a bench writes them: two places, three for fine figures. */
export function voltsText(volts: number, places = 2): string {
  return volts.toFixed(places);
}

/** Whole watts. */
export function wattsText(watts: number): string {
  return `${Math.round(watts)} W`;
}

/** A share as whole per cent; "under 1" and "over 99" instead of 0 and 100. */
export function percentText(share: number): string {
  if (share > 0 && share < 0.005) return '<1%';
  if (share < 1 && share > 0.995) return '>99%';
  return `${Math.round(share * 100)}%`;
}

/** Money in minor units with its currency code. */
export function moneyText(minor: number, currency: string): string {
  return `${(minor / 100).toFixed(2)} ${currency}`;
}

const months = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];

/**
 * A day without a time, ISO date, as people write it. It is text that becomes text: no clock and no time zone can make
 * it another day.
 */
export function dayText(day: string): string {
  const [year, month, dayOfMonth] = day.split('-').map(Number);
  return `${dayOfMonth} ${months[(month ?? 0) - 1]} ${year}`;
}

/** A peak's length as people say it. */
export function durationText(milliseconds: number): string {
  return milliseconds >= 1000 ? `${milliseconds / 1000} s` : `${milliseconds} ms`;
}

/** How many there are: "one tie", "3 ties". */
export const counted = (count: number, one: string) => `${count === 1 ? 'one' : count} ${one}${count === 1 ? '' : 's'}`;
