import type { Run } from '@wick/contract/run/run';

/** What the clock of a run shows, ms since 1970: of a rehearsal it runs quicker from its start on. @param wall ms since 1970 */
export function runTime({ startedAt, speed }: Pick<Run, 'startedAt' | 'speed'>, wall: number): number {
  const start = Date.parse(startedAt);
  return start + speed * (wall - start);
}

/** A rehearsal runs so far behind its clock, ms on the wall: what is said on a screen arrives before its moment has passed. */
export const REHEARSAL_LAG = 600;
