/** Where somebody saw the front, beside where a model has it. */
export interface MarkSeen {
  /** Fluidity time since the opening at which the model has the front there, 1/Pa, > 0 */
  readonly model: number;
  /** Fluidity time that had passed when it was seen there, 1/Pa, > 0 */
  readonly seen: number;
  /** Standard deviation of ln(model / seen) without the one factor that all share. */
  readonly deviation: number;
}

/** Standard deviation by which the laminate at a place differs from all of it; and over which ln of time that fades on the way. From memory. */
export const LOCAL_SCATTER = 0.1;
const PATH = 0.7;
/** Of a mark nobody should trust: it is off by any factor. */
export const WILD = 1;

/**
 * ln of the factor on permeability over (porosity x viscosity) that one mark tells by itself; below 0 the front comes late.
 * Checked by factor.test.ts.
 */
export const told = ({ model, seen }: Pick<MarkSeen, 'model' | 'seen'>): number => Math.log(model / seen);

/**
 * Standard deviation of what a mark tells: the laminate's own, that of the place, and that of the clock.
 * @param of relative slope of the model's time along the way, 1/m (2/x on a strip); place, m, and share of the time since opening, one
 *        standard deviation each
 * Source: propagation of error through t ~ x^2. Checked by factor.test.ts.
 */
export const deviationOf = (of: {
  readonly slope: number;
  readonly place: number;
  readonly timeShare: number;
}): number => Math.hypot(LOCAL_SCATTER, of.slope * of.place, of.timeShare);

/** How much of what is local at one time of the way still is at another, 0-1. @param a fluidity time  @param b the same */
export const alike = (a: number, b: number): number => Math.exp(-Math.abs(Math.log(a / b)) / PATH);

/** Covariance of what two different marks tell: the part of the way that they share. */
export const shared = (a: MarkSeen, b: MarkSeen): number => LOCAL_SCATTER ** 2 * alike(a.model, b.model);
