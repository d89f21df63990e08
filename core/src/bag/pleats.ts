import { lengthOverPlan, type MouldSection } from './section.ts';

/** A pleat at a rise: it stands on the tape line on either side of the bag. */
export interface Pleat {
  /** m along the section's plan. */
  readonly at: number;
  readonly height: number;
}

/** A pleat is so much taller than its rise, and pleats hold so much more film than is needed: common practice, no source. */
export const OVER_RISE = 1.1;
const OVER_NEED = 1.2;

/**
 * Pleats of a section: one at every rise, a tenth taller than it; taller all of them where that does not hold the film that is
 * needed: on each bag edge parallel to the section 2 sum h >= 1.2 times the length over the plan. None on a flat part.
 * Source: a pleat of height h takes 2 h of film; common practice for the rest. Checked by bag.test.ts.
 */
export function pleatsOf(section: MouldSection): Pleat[] {
  const needed = filmNeeded(section);
  const plain = section.climbs.map(({ at, height }) => ({ at, height: OVER_RISE * Math.abs(height) }));
  const held = 2 * plain.reduce((sum, { height }) => sum + height, 0);
  const more = held > 0 ? Math.max(1, needed / held) : 1;
  return plain.map(({ at, height }) => ({ at, height: more * height }));
}

/** Film that the pleats on one edge have to hold, m. */
export const filmNeeded = (section: MouldSection): number => OVER_NEED * Math.max(0, lengthOverPlan(section));

/** Tape round a bag with pleats, m: each takes twice its height. */
export const tapeLength = (perimeter: number, pleats: readonly Pick<Pleat, 'height'>[]): number =>
  perimeter + 2 * pleats.reduce((sum, { height }) => sum + height, 0);

/** Film beyond the developed part on either side, m. */
export interface FilmEdge {
  readonly flange: number;
  readonly tape: number;
  readonly slack: number;
}

/** Cut length of film over a developed length, m: and the flange and tape at both ends, and slack. */
export const filmCut = (developed: number, { flange, tape, slack }: FilmEdge): number =>
  developed + 2 * (flange + tape) + slack;

/** A bag is 30 to 40 % larger than the surface of the part: common practice, no source. */
export const FILM_OVER_SURFACE = [1.3, 1.4] as const;
