/** A scale with what stands on it. */
export interface ScaleState {
  /** s */
  readonly time: number;
  /** On its pan, kg: bucket and resin. */
  readonly load: number;
  /** What its cell has followed to, kg. */
  readonly followed: number;
  /** By which its zero has crept, kg. */
  readonly crept: number;
}

/** What is done to a scale for a while. */
export interface ScaleConditions {
  /** Poured in, kg/s. */
  readonly pouring: number;
  /** Of its zero, kg/s. */
  readonly drift: number;
  /** Share of the load that something beside it carries: the bucket leans or touches. */
  readonly carried: number;
}

/** In which a cell settles, s: typical of a bench scale with its filter, from memory. */
const SETTLING = 0.6;

/**
 * Goes on from a state: the load grows by what is poured, the cell follows it as exp(-t / SETTLING), its zero creeps. Exact for conditions
 * that stay.
 * @param duration s, >= 0
 * Checked by scale-world.test.ts.
 */
export function passScale(
  { time, load, followed, crept }: ScaleState,
  { pouring, drift, carried }: ScaleConditions,
  duration: number,
): ScaleState {
  const left = Math.exp(-duration / SETTLING);
  const after = load + pouring * duration;
  const share = 1 - carried;
  // Behind a ramp a first-order cell stays one time constant.
  const behind = followed - share * (load - pouring * SETTLING);
  return {
    time: time + duration,
    load: after,
    followed: share * (after - pouring * SETTLING) + behind * left,
    crept: crept + drift * duration,
  };
}
