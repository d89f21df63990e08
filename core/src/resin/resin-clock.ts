import { ASSUMED_GEL_RATIO, freshViscosity, gelTime, type ResinSystem } from './resin-system.ts';

/** Resin kept at one temperature from its first mix on; times in s since then. */
export interface ResinClock {
  readonly gelTime: number;
  /** Pa s; past gel it is still the exponential, for drawing only. */
  viscosityAt(time: number): number;
  /** Fluidity time, the integral of dt / viscosity, 1/Pa; nothing flows after gel. */
  fluidity(span: { from: number; to: number }): number;
  /** When flow that began at `from` has used up a fluidity time; Infinity if gel comes first. */
  timeAtFluidity(use: { from: number; fluidity: number }): number;
}

/**
 * Viscosity grows with age a = t / t_gel as mu = mu0 exp(g a); gel at a = 1.
 * The integrals are closed: fluidity = t_gel / (g mu0) (exp(-g a0) - exp(-g a1)).
 * @param factors multiply viscosity and gel time, for scatter
 * @throws ModelError as freshViscosity
 * Valid: constant temperature, all the resin of one age. Checked by resin.test.ts against numerical integration.
 */
export function createResinClock(
  resin: ResinSystem,
  temperature: number,
  factors: { viscosity: number; gelTime: number } = { viscosity: 1, gelTime: 1 },
): ResinClock {
  const fresh = freshViscosity(resin, temperature) * factors.viscosity;
  const gel = gelTime(resin, temperature) * factors.gelTime;
  const growth = Math.log(Math.max(resin.gelViscosityRatio ?? ASSUMED_GEL_RATIO, 1 + 1e-6));
  const scale = gel / (growth * fresh);
  const left = (time: number) => Math.exp((-growth * Math.min(time, gel)) / gel);
  return {
    gelTime: gel,
    viscosityAt: (time) => fresh * Math.exp((growth * time) / gel),
    fluidity: ({ from, to }) => scale * (left(from) - left(to)),
    timeAtFluidity: ({ from, fluidity }) => {
      const remaining = left(from) - fluidity / scale;
      const time = from >= gel || !(remaining > 0) ? Infinity : (-gel / growth) * Math.log(remaining);
      return time <= gel ? time : Infinity;
    },
  };
}
