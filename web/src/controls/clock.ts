/** Instants as the bench reads them: 24 hours, day first. */
export const clockTime = (instant: string): string => new Date(instant).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' });
export const calendarDay = (instant: string): string => new Date(instant).toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year: 'numeric' });
export const dayAndTime = (instant: string): string => `${calendarDay(instant)}, ${clockTime(instant)}`;
