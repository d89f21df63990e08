import type { JobFeature } from '@wick/contract/job/job';
import { intersect, regionArea, strip, type Region } from '@wick/core/geometry/overlay';
import { pairOf } from '../bag/bridges.ts';
import type { LaidJob } from '../job/laid.ts';
import type { Tick } from './step.ts';

const isPressed = ({ kind, height }: JobFeature): boolean => kind === 'insideCorner' || height > 0;
/** Half the width of what is looked at along a corner, m. */
const BESIDE = 0.005;

/** Corners into which a ply is pressed, by where it lies. Plies that lie alike are asked for once. */
export function cornersUnder(job: Pick<LaidJob, 'part'>): (region: Region) => readonly JobFeature[] {
  const pressed = job.part.features.filter(isPressed);
  const known = new Map<Region, readonly JobFeature[]>();
  return (region) => {
    const found =
      known.get(region) ??
      pressed.filter(({ points }) => regionArea(intersect(strip(points, BESIDE), region)) > 0);
    known.set(region, found);
    return found;
  };
}

/**
 * Ticks for the inside corners of one ply. Two that feed from each other are pressed in turn, each twice, in this order: pressing one
 * lifts the other.
 */
export function cornerTicks(corners: readonly JobFeature[], plyId: string): Tick[] {
  const taken = new Set<string>();
  return corners.flatMap((corner) => {
    if (taken.has(corner.id)) return [];
    taken.add(corner.id);
    const pair = pairOf(
      corner,
      corners.filter(({ id }) => !taken.has(id)),
    );
    if (!pair) return [tick(plyId, corner, 1, null)];
    taken.add(pair.id);
    return [
      [corner, 1],
      [pair, 1],
      [corner, 2],
      [pair, 2],
    ].reduce<Tick[]>((made, [own, round]) => {
      const before = made.at(-1)?.id ?? null;
      return [...made, tick(plyId, own as JobFeature, round as number, before, true)];
    }, []);
  });
}

function tick(
  plyId: string,
  { id, name }: JobFeature,
  round: number,
  after: string | null,
  isPaired = false,
): Tick {
  const what = !isPaired ? name : round === 1 ? `${name}, its middle` : `${name}, once more to its ends`;
  return { id: `corner:${plyId}:${id}:${round}`, what, after };
}
