import type { ResinClock } from '../resin/resin-clock.ts';

/** By which share of the planned pressure the resin is driven, from each time on; before the first as from it. Times ascend, s since first mix. */
export interface Drive {
  readonly times: readonly number[];
  readonly shares: readonly number[];
}

/** Fluidity that drives the front: the integral of share dt / viscosity since the opening, 1/Pa. */
export interface DrivenClock {
  readonly at: (time: number) => number;
  /** s since first mix; Infinity if gel comes first. */
  readonly timeOf: (driven: number) => number;
  readonly gelTime: number;
}

/**
 * The clock of a run whose bag does not hold what was planned: pressure and viscosity enter a front's way only by their quotient, so a
 * model solved at the planned pressure is read at the driven fluidity.
 * @param openTime s since first mix  @param drive shares >= 0; the last goes on
 * Valid: one feed pressure, no weight, stiff bed. Source: Darcy. Checked by driven-clock.test.ts.
 */
export function drivenClock(clock: ResinClock, openTime: number, { times, shares }: Drive): DrivenClock {
  const pieces: { from: number; share: number; sum: number }[] = [];
  const begin = (from: number, share: number) => {
    const last = pieces[pieces.length - 1];
    const sum = last ? last.sum + last.share * clock.fluidity({ from: last.from, to: from }) : 0;
    pieces.push({ from, share, sum });
  };
  begin(openTime, shareAt(openTime, times, shares));
  times.forEach((time, n) => {
    if (time > openTime) begin(time, shares[n]!);
  });
  const at = (time: number) => {
    if (time <= openTime) return 0;
    const piece = pieces.findLast(({ from }) => from <= time)!;
    return piece.sum + piece.share * clock.fluidity({ from: piece.from, to: time });
  };
  return {
    at,
    gelTime: clock.gelTime,
    timeOf(driven) {
      const piece = pieces.findLast(({ sum }) => sum <= driven) ?? pieces[0]!;
      const rest = driven - piece.sum;
      if (rest <= 0) return piece.from;
      return piece.share > 0
        ? clock.timeAtFluidity({ from: piece.from, fluidity: rest / piece.share })
        : Infinity;
    },
  };
}

function shareAt(time: number, times: readonly number[], shares: readonly number[]): number {
  const n = times.findLastIndex((from) => from <= time);
  return shares[Math.max(0, n)] ?? 1;
}
