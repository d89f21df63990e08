import { withBulge, type Corner } from './arcs.ts';
import { distance, type Point } from './polygon.ts';

/** A drawn path: its last corner carries no bulge unless it is closed. */
export interface DrawnPath {
  readonly corners: readonly Corner[];
  readonly isClosed: boolean;
}

/** Two ends of one chain that do not meet. */
export interface Gap {
  readonly from: Point;
  readonly to: Point;
  readonly width: number;
}

export interface Stitched {
  readonly rings: readonly (readonly Corner[])[];
  /** Chains that do not close, each with the gap between its ends; closeChain makes a ring of one. */
  readonly open: readonly { readonly corners: readonly Corner[]; readonly gap: Gap }[];
}

/**
 * Joins drawn paths end to end into rings: nearest ends first, as far apart as the tolerance. Either direction of a path
 * will do. What stays open is reported with its gap.
 * @param tolerance m, >= 0
 */
export function stitch(paths: readonly DrawnPath[], tolerance: number): Stitched {
  const rings: (readonly Corner[])[] = [];
  const chains: (readonly Corner[])[] = [];
  for (const { corners, isClosed } of paths) {
    const tidy = withoutRepeats(corners, isClosed);
    if (isClosed && isRing(tidy)) rings.push(tidy);
    else if (!isClosed && tidy.length > 1) chains.push(tidy);
  }
  const mates = matedEnds(chains, tolerance);
  const isUsed = new Uint8Array(chains.length);
  const open: (readonly Corner[])[] = [];
  /** Follows a chain from one of its ends through all that are mated to it. */
  const follow = (first: number): { corners: readonly Corner[]; comesBack: boolean } => {
    let corners: readonly Corner[] = [];
    for (let end = first; ;) {
      const n = end >> 1;
      isUsed[n] = 1;
      const next = end & 1 ? flipped(chains[n]) : chains[n];
      corners = corners.length === 0 ? next : link(corners, next);
      const mate = mates[end ^ 1];
      if (mate < 0 || isUsed[mate >> 1]) return { corners, comesBack: mate === first };
      end = mate;
    }
  };
  for (let end = 0; end < mates.length; end++)
    if (mates[end] < 0 && !isUsed[end >> 1]) open.push(follow(end).corners);
  for (let end = 0; end < mates.length; end++)
    if (!isUsed[end >> 1]) {
      const { corners, comesBack } = follow(end);
      const ring = corners.slice(0, -1);
      if (comesBack && isRing(ring)) rings.push(ring);
      else open.push(corners);
    }
  return { rings, open: open.map((corners) => ({ corners, gap: endGap(corners) })) };
}

/** Closes an open chain with a straight edge. */
export function closeChain(corners: readonly Corner[]): readonly Corner[] {
  return joined(corners);
}

/** Two corners do where an arc makes up the area. */
const isRing = (ring: readonly Corner[]) =>
  ring.length > 2 || (ring.length === 2 && ring.some((corner) => corner.bulge));

function endGap(chain: readonly Corner[]): Gap {
  const [from, to] = [chain[chain.length - 1], chain[0]];
  return { from, to, width: distance(from, to) };
}

/** Ends this near are the same point; a straight edge of no length would be left otherwise. */
const SAME = 1e-5;

function joined(chain: readonly Corner[]): readonly Corner[] {
  const last = chain[chain.length - 1];
  return distance(last, chain[0]) <= SAME ? chain.slice(0, -1) : [...chain.slice(0, -1), withBulge(last, 0)];
}

/** Two ends within the tolerance become one corner: a sliver of an edge between them would only trouble the mesh. */
function link(first: readonly Corner[], second: readonly Corner[]): Corner[] {
  return [...first.slice(0, -1), ...second];
}

function flipped(chain: readonly Corner[]): Corner[] {
  const n = chain.length;
  return chain.map((_, i) => withBulge(chain[n - 1 - i], i === n - 1 ? 0 : -(chain[n - 2 - i].bulge ?? 0)));
}

function withoutRepeats(corners: readonly Corner[], isClosed: boolean): Corner[] {
  const kept = corners.filter((corner, i) => {
    const next = corners[i + 1] ?? (isClosed ? corners[0] : undefined);
    return !next || distance(corner, next) > SAME;
  });
  return kept;
}

/** More ends than this at one place are no outline. */
const MOST_PARTNERS = 16;

/**
 * For each end (2 n the start of chain n, 2 n + 1 its end) the end it is joined to, or -1: pairs within the tolerance, the
 * nearest first, each end once.
 */
function matedEnds(chains: readonly (readonly Corner[])[], tolerance: number): Int32Array {
  const ends = chains.flatMap((chain) => [chain[0], chain[chain.length - 1]]);
  const mates = new Int32Array(ends.length).fill(-1);
  const byX = ends.map((_, i) => i).sort((i, j) => ends[i].x - ends[j].x);
  const reach = Math.max(tolerance, SAME);
  const pairs: { i: number; j: number; width: number }[] = [];
  byX.forEach((i, n) => {
    for (let m = n + 1, near = 0; m < byX.length && near < MOST_PARTNERS; m++) {
      if (ends[byX[m]].x - ends[i].x > reach) break;
      const width = distance(ends[i], ends[byX[m]]);
      if (width > reach) continue;
      pairs.push({ i, j: byX[m], width });
      near += 1;
    }
  });
  pairs.sort((a, b) => a.width - b.width || a.i - b.i || a.j - b.j);
  for (const { i, j } of pairs)
    if (mates[i] < 0 && mates[j] < 0) {
      mates[i] = j;
      mates[j] = i;
    }
  return mates;
}
