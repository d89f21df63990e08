import { ModelError, requirePositive } from '../model-error.ts';

/** Where a section across the mould climbs to another level and goes on level there. */
export interface Climb {
  /** Where its foot stands, m along the plan. */
  readonly at: number;
  /** m, above 0 up, below 0 down. */
  readonly height: number;
  /** Of the slope to the level, rad, above 0 and to a right angle. */
  readonly angle: number;
  /** Of the rounding at its foot and at its top, m. */
  readonly foot: number;
  readonly top: number;
}

/** How a mould turns where nobody has said, rad. */
export const RIGHT_ANGLE = Math.PI / 2;

/** A straight or an arc of a section. */
export type Piece =
  | { readonly kind: 'straight'; readonly length: number; readonly angle: number }
  /** Turns by so much, above 0 upwards. */
  | { readonly kind: 'arc'; readonly radius: number; readonly turn: number; readonly angle: number };

/** A section of a mould between two edges of its flange. */
export interface MouldSection {
  /** Edge to edge on the plan, m. */
  readonly plan: number;
  readonly climbs: readonly Climb[];
}

/** Film that a slope needs more than the plan below it, m: H tan(angle / 2). Geometry; checked by section.test.ts. */
export const slopeExcess = ({ height, angle }: Pick<Climb, 'height' | 'angle'>): number =>
  Math.abs(height) * Math.tan(angle / 2);

/** Film that a rounding of a bend gives back, m: r (2 tan(angle / 2) - angle). Geometry; checked by section.test.ts. */
export const filletSaving = (radius: number, angle: number): number =>
  radius * (2 * Math.tan(angle / 2) - angle);

/** Length of the mould line over its plan, m: what slopes need less what roundings give back. */
export const lengthOverPlan = ({ climbs }: Pick<MouldSection, 'climbs'>): number =>
  climbs.reduce(
    (sum, climb) =>
      sum + slopeExcess(climb) - filletSaving(climb.foot, climb.angle) - filletSaving(climb.top, climb.angle),
    0,
  );

/**
 * The mould line as a chain of straights and arcs, level at both ends.
 * @throws ModelError CLIMBS_TOO_CLOSE where two climbs, or a climb and its roundings, do not fit; NOT_POSITIVE
 * Valid: climbs sorted by place. Checked by section.test.ts: the chain ends where the plan ends, and is as long as lengthOverPlan says.
 */
export function mouldLine({ plan, climbs }: MouldSection): Piece[] {
  requirePositive(plan, 'Length of the section', 'm');
  const pieces: Piece[] = [];
  let at = 0;
  for (const climb of climbs) {
    const { height, angle, foot, top } = climb;
    requirePositive(angle, 'Slope of a rise', 'rad');
    const up = Math.sign(height);
    const [low, high] = [foot * Math.tan(angle / 2), top * Math.tan(angle / 2)];
    const run = Math.abs(height) / Math.tan(angle);
    const slope = Math.abs(height) / Math.sin(angle) - low - high;
    const level = climb.at - low - at;
    if (!(level > -1e-9) || !(slope > -1e-9))
      throw new ModelError(
        'CLIMBS_TOO_CLOSE',
        `The rise at ${climb.at.toFixed(3)} m does not fit: its roundings, or the rise before it, take more room than there is.`,
        { at: climb.at },
      );
    pieces.push(
      { kind: 'straight', length: level, angle: 0 },
      { kind: 'arc', radius: foot, turn: up * angle, angle: 0 },
      { kind: 'straight', length: slope, angle: up * angle },
      { kind: 'arc', radius: top, turn: -up * angle, angle: up * angle },
    );
    at = climb.at + run + high;
  }
  if (!(plan - at > -1e-9))
    throw new ModelError('CLIMBS_TOO_CLOSE', 'The last rise of the section stands over its end.', { at });
  pieces.push({ kind: 'straight', length: plan - at, angle: 0 });
  return pieces.filter((piece) => (piece.kind === 'straight' ? piece.length > 0 : piece.radius > 0));
}

/** Along the chain, m. */
export const developedLength = (pieces: readonly Piece[]): number =>
  pieces.reduce(
    (sum, piece) => sum + (piece.kind === 'straight' ? piece.length : piece.radius * Math.abs(piece.turn)),
    0,
  );

const ARC_STEPS = 12;

/** Points of the chain for drawing it, from 0, 0. */
export function pointsAlong(pieces: readonly Piece[]): { x: number; z: number }[] {
  const points = [{ x: 0, z: 0 }];
  for (const piece of pieces) {
    const { x, z } = points[points.length - 1];
    if (piece.kind === 'straight') {
      points.push({
        x: x + piece.length * Math.cos(piece.angle),
        z: z + piece.length * Math.sin(piece.angle),
      });
      continue;
    }
    const { radius, turn, angle } = piece;
    const side = Math.sign(turn);
    for (let n = 1; n <= ARC_STEPS; n++) {
      const now = angle + (turn * n) / ARC_STEPS;
      points.push({
        x: x + side * radius * (Math.sin(now) - Math.sin(angle)),
        z: z - side * radius * (Math.cos(now) - Math.cos(angle)),
      });
    }
  }
  return points;
}
