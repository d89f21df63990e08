import type { Run } from '@wick/contract/run/run';

/** What the clock of a run shows, ms since 1970: of a rehearsal it runs quicker from its start on. @param wall ms since 1970 */
export function runTime({ startedAt, speed }: Pick<Run, 'startedAt' | 'speed'>, wall: number): number {
  const start = Date.parse(startedAt);
  return start + speed * (wall - start);
}
