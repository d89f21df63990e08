import { offset, intersect, regionArea, subtract, type Patch, type Region } from '../geometry/overlay.ts';
import { polygonOf } from '../geometry/arcs.ts';
import { rotated } from '../geometry/moves.ts';
import { boundsOf, type Point } from '../geometry/polygon.ts';
import { requirePositive } from '../model-error.ts';

/** One ply of one laminate as it is to be cut. */
export interface PlyCut {
  /** In lay order over the whole part, from 1. */
  readonly order: number;
  readonly name: string;
  readonly materialId: string;
  /** rad, of the fabric's 0 direction to the plan's x axis. */
  readonly angle: number;
  /** Where the ply lies on the plan. */
  readonly region: Region;
}

/** A piece as it lies on the roll: x along the roll from its lower left corner, y across it. */
export interface CutPiece {
  readonly order: number;
  /** "3", or "3b" where a ply is made up of several pieces. */
  readonly label: string;
  readonly outline: readonly Point[];
  readonly holes: readonly (readonly Point[])[];
  readonly length: number;
  readonly width: number;
}

/**
 * Where a ply lies: inside the outline of its laminate drawn in by its inset, on the part, and not where a later zone
 * has a laminate without it. A zone outline that stands out over the part's edge draws its plies in only where it does not.
 * @param inset m; below 0 the ply reaches past the outline
 */
export function plyRegion(request: {
  part: Patch;
  own: Region;
  inset: number;
  /** Later zones in which the ply does not run on. */
  cutAway: readonly Region[];
}): Region {
  const { part, own, inset, cutAway } = request;
  const drawnIn = offset(own, -inset);
  return cutAway.reduce<Region>((left, zone) => subtract(left, zone), intersect(drawnIn, [part]));
}

/** kg/m2 times net area would be the ply's mass; this is the area, m2. */
export const plyArea = (cut: PlyCut) => regionArea(cut.region);

/**
 * Pieces of a ply turned so that its 0 direction runs along the roll; what is wider than the roll is cut into equal
 * strips along it, so that a bias ply longer than about the roll width times the root of two is pieced.
 * @param rollWidth m
 * @param overlap   m that a strip laps over the next one
 */
export function piecesOf(cut: PlyCut, rollWidth: number, overlap = 0): CutPiece[] {
  requirePositive(rollWidth, 'Roll width', 'm');
  const shapes = shapesOf(cut, rollWidth, overlap);
  return shapes.map((shape, i) => ({
    ...shape,
    order: cut.order,
    label: shapes.length > 1 ? `${cut.order}${letter(i)}` : `${cut.order}`,
  }));
}

type Shape = Omit<CutPiece, 'order' | 'label'>;
/** Regions are never changed in place, and many plies share one. */
const shaped = new WeakMap<Region, Map<string, readonly Shape[]>>();

function shapesOf({ region, angle }: PlyCut, rollWidth: number, overlap: number): readonly Shape[] {
  const ofRegion = shaped.get(region) ?? new Map<string, readonly Shape[]>();
  shaped.set(region, ofRegion);
  const kind = `${angle} ${rollWidth} ${overlap}`;
  const known = ofRegion.get(kind);
  if (known) return known;
  const patches = region.map(({ outline, holes }) => ({
    outline: rotated(polygonOf(outline), -angle, ORIGIN),
    holes: holes.map((hole) => rotated(polygonOf(hole), -angle, ORIGIN)),
  }));
  const made = patches
    .flatMap((patch) => stripsOf(patch, rollWidth, overlap))
    .map((patch): Shape => {
      const box = boundsOf(patch.outline);
      const home = ({ x, y }: Point): Point => ({ x: x - box.minX, y: y - box.minY });
      return {
        outline: patch.outline.map(home),
        holes: patch.holes.map((hole) => hole.map(home)),
        length: box.maxX - box.minX,
        width: box.maxY - box.minY,
      };
    });
  ofRegion.set(kind, made);
  return made;
}

const ORIGIN = { x: 0, y: 0 };
/** Narrower than this over the roll nobody cuts a strip more. */
const WIDTH_SLACK = 1e-6;

function stripsOf(patch: Patch, rollWidth: number, overlap: number): Patch[] {
  const { minX, maxX, minY, maxY } = boundsOf(patch.outline);
  const height = maxY - minY;
  if (height <= rollWidth + WIDTH_SLACK) return [patch];
  const count = Math.ceil((height - overlap - WIDTH_SLACK) / Math.max(rollWidth - overlap, rollWidth / 10));
  const pitch = (height - overlap) / count;
  return Array.from({ length: count }, (_, i) => {
    const [from, to] = [minY + i * pitch, minY + (i + 1) * pitch + overlap];
    const band = [
      { x: minX - 1, y: from },
      { x: maxX + 1, y: from },
      { x: maxX + 1, y: to },
      { x: minX - 1, y: to },
    ];
    return intersect([patch], [{ outline: band, holes: [] }]);
  }).flat();
}

const letter = (i: number): string =>
  (i < 26 ? '' : letter(Math.floor(i / 26) - 1)) + String.fromCharCode(97 + (i % 26));
