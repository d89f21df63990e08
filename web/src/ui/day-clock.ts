const BY_DAY = { hour: '2-digit', minute: '2-digit' } as const;

/** A time of the day as clocks on a wall have it, "14:05". @param at ms since 1970 */
export const dayClock = (at: number): string => new Date(at).toLocaleTimeString('sv-SE', BY_DAY);

/** The same to the second. */
export const dayClockFine = (at: number): string =>
  new Date(at).toLocaleTimeString('sv-SE', { ...BY_DAY, second: '2-digit' });

/** With the day of the week, for what takes longer than a day, "Sat 02:16". */
export const weekClock = (at: number): string =>
  `${new Date(at).toLocaleDateString('en-GB', { weekday: 'short' })} ${dayClock(at)}`;
