import { arrivalAt } from '@wick/core/flow/probe';
import type { LiveFill } from '@wick/core/flow/live-fill';
import type { FlowProblem } from '@wick/core/flow/problem';
import type { Point } from '@wick/core/geometry/polygon';

/** What of a plan's triggers can be seen to hold on a part. */
export interface Cues {
  /** @param clock s since first contact  @returns ids of actions */
  readonly due: (clock: number) => readonly string[];
  /** Run time at which the front came to a place on the bag side; NaN before it does. */
  readonly frontAt: (place: Point) => number;
}

/** The triggers of a plan, read on a fill that somebody turns by hand; delays count from when each is first seen to hold. */
export function createCues({ lines }: Pick<FlowProblem, 'lines'>, fill: LiveFill): Cues {
  const heldSince = new Map<string, number>();
  const delays = new Map(
    lines.flatMap(({ actions }) =>
      actions.flatMap(({ id, when }) => (id && 'delay' in when ? [[id, when.delay] as const] : [])),
    ),
  );
  const times = new Map(
    lines.flatMap(({ actions }) =>
      actions.flatMap(({ id, when }) => (id && when.kind === 'time' ? [[id, when.time] as const] : [])),
    ),
  );
  return {
    due(clock) {
      for (const id of fill.due()) if (!heldSince.has(id)) heldSince.set(id, clock);
      for (const [id, at] of times) if (clock >= at && !heldSince.has(id)) heldSince.set(id, clock);
      return [...heldSince].filter(([id, since]) => clock >= since + (delays.get(id) ?? 0)).map(([id]) => id);
    },
    frontAt: (place) => arrivalAt(fill.mesh, fill.arrival().bagSide, place),
  };
}
