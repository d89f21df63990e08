import type { Point } from '../geometry/polygon.ts';
import { requirePositive } from '../model-error.ts';
import type { CutPiece } from './cut-pieces.ts';

/** A piece on the roll, in the roll's own measures: x along it, y across. Pieces cut alike share one shape. */
export interface PlacedPiece {
  readonly piece: CutPiece;
  readonly shape: PieceShape;
  /** Where the shape's own corner lies. */
  readonly at: Point;
}

/** As it lies: from its lower left corner. */
export interface PieceShape {
  readonly outline: readonly Point[];
  readonly holes: readonly (readonly Point[])[];
  readonly isTurned: boolean;
  /** m2, without its holes. */
  readonly area: number;
}

export interface Nest {
  readonly placed: readonly PlacedPiece[];
  /** Roll used, m, and the share of it that ends up in plies. */
  readonly length: number;
  readonly usedShare: number;
  /** Too wide for the roll; not placed. */
  readonly tooWide: readonly CutPiece[];
}

/** Height of a row in which a piece's ends are taken at their widest, m. */
const ROW = 0.005;

interface Profile {
  readonly shape: PieceShape;
  /** Least and greatest x in each row. */
  readonly left: Float64Array;
  readonly right: Float64Array;
  /** Greatest x of all. */
  readonly reach: number;
}

/**
 * Places pieces on a roll, longest first, each as far back as what lies there already allows, as it is or turned end for
 * end. An estimate: a patient hand does a little better.
 * @param rollWidth m
 * @param gap       m left free around each piece for the blade
 * Checked by kit.test.ts: no two overlap, all lie on the roll.
 */
export function nest(pieces: readonly CutPiece[], rollWidth: number, gap = 0.005): Nest {
  requirePositive(rollWidth, 'Roll width', 'm');
  const fits = pieces.filter(({ width }) => width <= rollWidth + 1e-6);
  const rowCount = Math.max(1, Math.ceil(rollWidth / ROW - 1e-9));
  const front = new Float64Array(rowCount);
  const placed: PlacedPiece[] = [];
  let length = 0;
  const profile = profilesOnce();
  const order = [...fits].sort((a, b) => b.length - a.length || b.width - a.width || a.order - b.order);
  for (const piece of order) {
    const choices = [profile(piece, false), profile(piece, true)].map((own) => ({
      ...bestPlace(own, front, rollWidth, piece.width),
      own,
    }));
    const { row, x, own } = choices[choices[1].end < choices[0].end - 1e-9 ? 1 : 0];
    const [reachLeft, reachRight] = [own.left, own.right];
    const y = Math.min(row * ROW, rollWidth - piece.width);
    for (let r = 0; r < reachLeft.length && row + r < rowCount; r++)
      front[row + r] = Math.max(front[row + r], x + reachRight[r] + gap);
    // One row more on either side keeps the gap across the roll too.
    const beside = [row - 1, row + reachLeft.length].filter((r) => r >= 0 && r < rowCount);
    for (const r of beside)
      front[r] = Math.max(front[r], x + reachRight[r < row ? 0 : reachRight.length - 1] + gap);
    length = Math.max(length, x + own.reach);
    placed.push({ piece, shape: own.shape, at: { x, y } });
  }
  const area = placed.reduce((sum, { shape }) => sum + shape.area, 0);
  return {
    placed,
    length,
    usedShare: length > 0 ? area / (length * rollWidth) : 0,
    tooWide: pieces.filter((piece) => !fits.includes(piece)),
  };
}

/** The row at which the piece's far end comes out least far along the roll. */
function bestPlace({ left, reach }: Profile, front: Float64Array, rollWidth: number, width: number) {
  const last = Math.max(0, Math.floor((rollWidth - width) / ROW + 1e-9));
  let best = { row: 0, x: 0, end: Infinity };
  for (let row = 0; row <= last; row++) {
    const least = best.end - 1e-9 - reach;
    let x = 0;
    for (let r = 0; r < left.length && row + r < front.length && x < least; r++)
      x = Math.max(x, front[row + r] - left[r]);
    if (x < least) best = { row, x, end: x + reach };
  }
  return best;
}

/** Many plies are cut to one shape, whose profiles are made once. */
function profilesOnce(): (piece: CutPiece, isTurned: boolean) => Profile {
  const known = new Map<CutPiece['outline'], Profile[]>();
  return (piece, isTurned) => {
    const own = known.get(piece.outline) ?? [];
    known.set(piece.outline, own);
    return (own[Number(isTurned)] ??= profileOf(piece, isTurned));
  };
}

function profileOf(piece: CutPiece, isTurned: boolean): Profile {
  const turn = ({ x, y }: Point): Point =>
    isTurned ? { x: piece.length - x, y: piece.width - y } : { x, y };
  const outline = piece.outline.map(turn);
  const rows = Math.max(1, Math.ceil(piece.width / ROW - 1e-9));
  const left = new Float64Array(rows).fill(Infinity);
  const right = new Float64Array(rows).fill(-Infinity);
  const reach = (row: number, x: number) => {
    if (row < 0 || row >= rows) return;
    left[row] = Math.min(left[row], x);
    right[row] = Math.max(right[row], x);
  };
  outline.forEach((a, i) => {
    const b = outline[(i + 1) % outline.length];
    const [low, high] = a.y <= b.y ? [a, b] : [b, a];
    const at = (y: number) =>
      high.y - low.y < 1e-12 ? low.x : low.x + ((y - low.y) / (high.y - low.y)) * (high.x - low.x);
    for (let row = Math.floor(low.y / ROW); row <= Math.floor(high.y / ROW); row++)
      for (const y of [Math.max(low.y, row * ROW), Math.min(high.y, (row + 1) * ROW)]) reach(row, at(y));
    for (const p of [a, b]) reach(Math.floor(p.y / ROW), p.x);
  });
  const holes = piece.holes.map((hole) => hole.map(turn));
  const area = shoelace(outline) - holes.reduce((sum, hole) => sum + shoelace(hole), 0);
  return {
    shape: { outline, holes, isTurned, area },
    left,
    right,
    reach: right.reduce((far, x) => Math.max(far, x)),
  };
}

function shoelace(ring: readonly Point[]): number {
  return (
    Math.abs(
      ring.reduce(
        (sum, a, i) => sum + a.x * ring[(i + 1) % ring.length].y - ring[(i + 1) % ring.length].x * a.y,
        0,
      ),
    ) / 2
  );
}
