import { ModelError, requirePositive } from '../model-error.ts';

/** Densities of the two components, kg/m3. */
export interface ComponentDensities {
  readonly resin: number;
  readonly hardener: number;
}

/** Two components that are weighed, kg. */
export interface Weighed {
  readonly resin: number;
  readonly hardener: number;
}

/**
 * Hardener to 100 of resin by weight, from the same by volume: parts by weight are parts by volume times density.
 * @throws ModelError NOT_POSITIVE of a density
 * Arithmetic; checked by ratio.test.ts.
 */
export function partsByWeight(byVolume: number, { resin, hardener }: ComponentDensities): number {
  requirePositive(resin, 'Density of the resin', 'kg/m3');
  requirePositive(hardener, 'Density of the hardener', 'kg/m3');
  return (byVolume * hardener) / resin;
}

/** The way back: hardener to 100 of resin by volume. Errors as partsByWeight. */
export const partsByVolume = (byWeight: number, { resin, hardener }: ComponentDensities): number =>
  partsByWeight(byWeight, { resin: hardener, hardener: resin });

/** A total, kg or m3, in its two components. @param parts hardener to 100 of resin, > 0, in the same measure */
export function splitTotal(total: number, parts: number): Weighed {
  const resin = (100 * total) / (100 + parts);
  return { resin, hardener: total - resin };
}

/** How far hardener may be off what belongs to the resin, as a share of it: below (negative) and above. */
export interface RatioWindow {
  readonly from: number;
  readonly to: number;
}

export interface MixReading {
  /** Hardener in it to 100 of resin by weight; Infinity without resin. */
  readonly parts: number;
  /** By which the hardener is off what belongs to the resin, as a share. */
  readonly off: number;
  readonly isWithin: boolean;
  /** What brings it to the ratio, kg; none where it is within its window. */
  readonly add: { readonly what: 'resin' | 'hardener'; readonly mass: number } | null;
  /** After that, kg. */
  readonly total: number;
}

/**
 * What a mix that has been weighed needs: of too much hardener h on resin R at ratio q, h/q - R of resin, or the reverse. Nothing is
 * ever taken out.
 * @param parts hardener to 100 of resin by weight
 * @throws ModelError NO_RATIO
 * Arithmetic; checked by ratio.test.ts.
 */
export function readMix(
  { resin, hardener }: Weighed,
  parts: number,
  window: RatioWindow = { from: 0, to: 0 },
): MixReading {
  if (!(parts > 0 && resin >= 0 && hardener >= 0))
    throw new ModelError(
      'NO_RATIO',
      `A mix is judged by its ratio, and ${parts} parts of hardener to 100 are none. Enter what the data sheet says.`,
    );
  const q = parts / 100;
  const off = resin > 0 ? hardener / (q * resin) - 1 : Infinity;
  const isWithin = off >= window.from && off <= window.to;
  const lacking = hardener > q * resin ? hardener / q - resin : q * resin - hardener;
  const add =
    isWithin || lacking === 0 ? null : ({ what: off > 0 ? 'resin' : 'hardener', mass: lacking } as const);
  return {
    parts: resin > 0 ? (100 * hardener) / resin : Infinity,
    off,
    isWithin,
    add,
    total: resin + hardener + (add?.mass ?? 0),
  };
}

/**
 * Smallest mix, kg, of which a scale weighs the smaller component closely enough: that has to be at least half a step over the
 * tolerance, d / (2 e).
 * @param scale step of its display, kg  @param tolerance of that component, as a share of it, > 0
 * Arithmetic; checked by ratio.test.ts.
 */
export function smallestMix(scale: { readonly step: number }, tolerance: number, parts: number): number {
  requirePositive(tolerance, 'Tolerance of the ratio', '');
  requirePositive(parts, 'Hardener', 'parts');
  const smaller = Math.min(100, parts) / (100 + parts);
  return scale.step / (2 * tolerance) / smaller;
}

/** Coarsest step of a scale, kg, that weighs a mix of so many kg closely enough. */
export const coarsestStep = (mass: number, tolerance: number, parts: number): number =>
  mass / smallestMix({ step: 1 }, tolerance, parts);
