import type { JobLine } from '@wick/contract/job/job';
import type { ScriptStep } from '@wick/plan/layout/valve-script';

/** How far each line is open at a minute, s from first mix: 0 shut, 1 open; before anything has happened when no minute is given. */
export function openingsAt(
  lines: readonly Pick<JobLine, 'id' | 'kind' | 'startsOpen'>[],
  script: readonly ScriptStep[],
  time: number | null,
): Map<string, number> {
  return new Map(
    lines
      .filter(({ kind }) => kind !== 'race')
      .map(({ id, startsOpen }) => {
        const passed = script.filter(
          (step) =>
            step.lineId === id &&
            step.actionId !== null &&
            step.time !== null &&
            time !== null &&
            step.time <= time,
        );
        return [id, passed.at(-1)?.opening ?? (startsOpen ? 1 : 0)];
      }),
  );
}
