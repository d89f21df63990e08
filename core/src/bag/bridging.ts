import { requirePositive } from '../model-error.ts';

/** A bag film. */
export interface BagFilm {
  /** m */
  readonly thickness: number;
  /** Stress at yield, Pa. */
  readonly strength: number;
  /** Strain at break. */
  readonly elongation: number;
}

/** An inside corner: its rounding, m, and the angle by which the mould turns, rad. */
export interface InsideCorner {
  readonly radius: number;
  readonly turn: number;
}

/** Of the strain at break a film may be stretched by no more than this share: common practice, no source. */
const SAFE_STRAIN = 0.25;

/**
 * Radius, m, on which a film spans a corner: R = N / dp, N its tension a width, sigma t at most.
 * @param pressure that presses it, Pa
 * Source: membrane equilibrium. Checked by bag.test.ts.
 */
export function filmRadius({ strength, thickness }: BagFilm, pressure: number): number {
  requirePositive(pressure, 'Pressure on the bag', 'Pa');
  return (strength * thickness) / pressure;
}

/**
 * Film that a bag without slack lacks to lie in a corner, m: (R - r) (2 tan(turn / 2) - turn), none where it is rounder than R.
 * @param spanned radius on which film or plies span it, m
 */
export const filmLacking = ({ radius, turn }: InsideCorner, spanned: number): number =>
  Math.max(0, spanned - radius) * (2 * Math.tan(turn / 2) - turn);

/** Whether a bag stretches into a corner: what it lacks, over the length of film that is free to stretch, within a quarter of its strain at break. */
export const reaches = (film: BagFilm, corner: InsideCorner, spanned: number, free: number): boolean =>
  filmLacking(corner, spanned) <= SAFE_STRAIN * film.elongation * free;

/**
 * Radius, m, below which plies pressed on a leg of a corner stay locked by friction, whatever the vacuum: R = mu l.
 * Source: Coulomb friction. Checked by bag.test.ts.
 */
export const lockedRadius = (friction: number, leg: number): number => friction * leg;

/**
 * Section of the pocket behind plies that span a corner, m2: (tan(turn / 2) - turn / 2) (R^2 - r^2); at a right angle
 * (1 - pi/4) (R^2 - r^2). It fills with resin, and resin runs ahead in it.
 */
export const pocketArea = ({ radius, turn }: InsideCorner, spanned: number): number =>
  (Math.tan(turn / 2) - turn / 2) * Math.max(0, spanned ** 2 - radius ** 2);

/** Gap, m, of a square duct as large as a pocket: as a race takes it. */
export const pocketGap = (corner: InsideCorner, spanned: number): number =>
  Math.sqrt(pocketArea(corner, spanned));
