/** Room at either end of the fuse, px. */
const LEFT = 24;
/** Share of gel time that is drawn past gel. */
const PAST_GEL = 0.08;

/** Times from first mix, s, along the foot of the screen, px: the fuse and everything that is laid out against it. */
export interface FuseScale {
  readonly end: number;
  readonly left: number;
  xOf(time: number): number;
  timeAt(x: number): number;
}

export function fuseScale(width: number, gel: number | null): FuseScale {
  const end = (gel ?? 3600) * (1 + PAST_GEL);
  const span = Math.max(1, width - 2 * LEFT);
  return {
    end,
    left: LEFT,
    xOf: (time) => LEFT + (span * time) / end,
    timeAt: (x) => ((x - LEFT) / span) * end,
  };
}
