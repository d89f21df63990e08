import {
  flattenEdge,
  polygonOf,
  ringArea,
  ringBounds,
  withBulge,
  type Corner,
} from '@wick/core/geometry/arcs';
import {
  aimEdge,
  bendEdge,
  mirroredLine,
  mirroredRing,
  splitAlong,
  splitEdge,
} from '@wick/core/geometry/moves';
import { intersect, offset, regionArea, subtract, unite, type Region } from '@wick/core/geometry/overlay';
import { contains, distance, nearestOnSegment, type Point } from '@wick/core/geometry/polygon';
import {
  emptyLaminate,
  type Job,
  type JobFeature,
  type JobLaminate,
  type JobZone,
  type ZonePly,
} from '@wick/contract/job';
import { partPatch } from '@wick/contract/ply-book';
import { freshId, roundPoint, shift, withoutTriggersOn, withPart, type Edit } from './job-edits.ts';

/** One ring of the plan. */
export type RingRef =
  | { readonly kind: 'outline' }
  | { readonly kind: 'hole'; readonly index: number }
  | { readonly kind: 'zone'; readonly id: string };

export const isSameRing = (a: RingRef | null, b: RingRef | null) => JSON.stringify(a) === JSON.stringify(b);

/** All rings, those on top first: as a hand meets them. */
export function ringRefs(job: Job): RingRef[] {
  return [
    ...job.part.holes.map((_, index): RingRef => ({ kind: 'hole', index })),
    ...[...job.zones].reverse().map(({ id }): RingRef => ({ kind: 'zone', id })),
    { kind: 'outline' },
  ];
}

/** Empty for a ring that is gone. */
export function ringAt(job: Job, ref: RingRef): readonly Corner[] {
  if (ref.kind === 'outline') return job.part.outline;
  if (ref.kind === 'hole') return job.part.holes[ref.index] ?? [];
  return job.zones.find(({ id }) => id === ref.id)?.outline ?? [];
}

export function ringName(job: Job, ref: RingRef): string {
  if (ref.kind === 'outline') return 'Outline';
  if (ref.kind === 'hole') return `Hole ${ref.index + 1}`;
  return job.zones.find(({ id }) => id === ref.id)?.name ?? 'Zone';
}

/** The ring under a point of the plan. */
export function ringUnder(job: Job, at: Point): RingRef | null {
  return ringRefs(job).find((ref) => contains(polygonOf(ringAt(job, ref)), at)) ?? null;
}

const rounded = (ring: readonly Corner[]) => ring.map((p) => withBulge(roundPoint(p), p.bulge ?? 0));

export const withRing =
  (ref: RingRef, ring: readonly Corner[]): Edit =>
  (job) => {
    const outline = rounded(ring);
    if (ref.kind === 'outline') return withPart({ outline })(job);
    if (ref.kind === 'hole')
      return withPart({ holes: job.part.holes.map((hole, i) => (i === ref.index ? outline : hole)) })(job);
    return { ...job, zones: job.zones.map((zone) => (zone.id === ref.id ? { ...zone, outline } : zone)) };
  };

const onRing =
  (ref: RingRef, change: (ring: readonly Corner[]) => readonly Corner[]): Edit =>
  (job) => {
    const ring = ringAt(job, ref);
    const after = change(ring);
    return after === ring ? job : withRing(ref, after)(job);
  };

export const moveCorner = (ref: RingRef, index: number, to: Point) =>
  onRing(ref, (ring) => ring.map((p, i) => (i === index ? { ...p, x: to.x, y: to.y } : p)));
export const splitEdgeAt = (ref: RingRef, index: number) => onRing(ref, (ring) => splitEdge(ring, index));
export const bendEdgeTo = (ref: RingRef, index: number, through: Point) =>
  onRing(ref, (ring) => bendEdge(ring, index, through));
export const setBulge = (ref: RingRef, index: number, bulge: number) =>
  onRing(ref, (ring) => ring.map((p, i) => (i === index ? withBulge(p, bulge) : p)));
export const aimEdgeAt = (ref: RingRef, index: number, aim: { length: number; angle: number }) =>
  onRing(ref, (ring) => aimEdge(ring, index, aim));

/** A ring keeps three corners, or two with an arc. */
export const removeCorner = (ref: RingRef, index: number) =>
  onRing(ref, (ring) => {
    const left = ring.filter((_, i) => i !== index);
    return left.length > 2 || (left.length === 2 && left.some((p) => p.bulge)) ? left : ring;
  });

/** The outline takes all that lies on it along; a hole or zone moves alone. */
export const moveRing =
  (ref: RingRef, by: Point): Edit =>
  (job) => {
    const moved = (ring: readonly Corner[]) => ring.map((p) => ({ ...p, x: p.x + by.x, y: p.y + by.y }));
    return ref.kind === 'outline'
      ? mapPlan(job, moved, (points) => points.map((p) => shift(p, by)))
      : onRing(ref, moved)(job);
  };

/** Everything drawn on the plan through one change of rings and one of lines. */
function mapPlan(
  job: Job,
  ofRing: (ring: readonly Corner[]) => readonly Corner[],
  ofLine: (points: readonly Point[]) => readonly Point[],
): Job {
  return {
    ...job,
    part: {
      ...job.part,
      outline: rounded(ofRing(job.part.outline)),
      holes: job.part.holes.map((hole) => rounded(ofRing(hole))),
      features: job.part.features.map((f) => ({ ...f, points: ofLine(f.points).map(roundPoint) })),
    },
    zones: job.zones.map((zone) => ({ ...zone, outline: rounded(ofRing(zone.outline)) })),
    lines: job.lines.map((line) => ({ ...line, points: ofLine(line.points).map(roundPoint) })),
    marks: job.marks.map((mark) => ({ ...mark, ...roundPoint(ofLine([mark])[0]!) })),
  };
}

/** The other hand of the part: plan, lines and fibre angles mirrored left to right; it rises the other way. */
export const mirrorJob: Edit = (job) => {
  const { minX, maxX } = ringBounds(job.part.outline);
  const axis = (minX + maxX) / 2;
  const turned = <P extends { angle: number }>(ply: P): P => ({
    ...ply,
    angle: ply.angle === 0 ? 0 : -ply.angle,
  });
  const mirrored = mapPlan(
    job,
    (ring) => mirroredRing(ring, axis),
    (points) => mirroredLine(points, axis),
  );
  const { rise } = mirrored.part;
  return {
    ...mirrored,
    part: { ...mirrored.part, rise: rise && { x: -rise.x, y: rise.y } },
    laminate: { ...mirrored.laminate, plies: mirrored.laminate.plies.map(turned) },
    zones: mirrored.zones.map((zone) => ({
      ...zone,
      laminate: {
        ...zone.laminate,
        plies: zone.laminate.plies.map((ply): ZonePly => ('through' in ply ? ply : turned(ply))),
      },
    })),
  };
};

/** A hole or zone mirrored in place. */
export const mirrorRing = (ref: RingRef) =>
  onRing(ref, (ring) => {
    const { minX, maxX } = ringBounds(ring);
    return mirroredRing(ring, (minX + maxX) / 2);
  });

export const addHole =
  (ring: readonly Corner[]): Edit =>
  (job) =>
    withPart({ holes: [...job.part.holes, rounded(ring)] })(job);

/** A zone starts out with the base laminate running through it; a brake with a single peel ply. */
export const addZone =
  (ring: readonly Corner[], changes: Partial<Pick<JobZone, 'name' | 'purpose'>> = {}): Edit =>
  (job) => {
    const id = freshId(job, 'zone');
    const { plies, coreId, pliesUnderCore, flowMeshId, peelPlyId, ...target } = job.laminate;
    const through = plies.map((ply) => ({ through: ply.id }));
    const laminate: JobZone['laminate'] =
      changes.purpose === 'brake'
        ? { ...emptyLaminate, plies: through.slice(0, 1), peelPlyId }
        : { plies: through, coreId, pliesUnderCore, flowMeshId, peelPlyId, ...target };
    const number = Number(id.split('-')[1]);
    const zone: JobZone = {
      id,
      name: changes.name ?? (changes.purpose === 'brake' ? `Brake ${number}` : `Zone ${number}`),
      purpose: changes.purpose ?? 'part',
      temperature: null,
      outline: rounded(ring),
      laminate,
    };
    return { ...job, zones: [...job.zones, zone] };
  };

export const updateZone =
  (id: string, changes: Partial<Omit<JobZone, 'laminate'>>): Edit =>
  (job) => ({ ...job, zones: job.zones.map((zone) => (zone.id === id ? { ...zone, ...changes } : zone)) });

/** Puts a zone one place up or down in the order in which they lie over each other. */
export const raiseZone =
  (id: string, by: 1 | -1): Edit =>
  (job) => {
    const from = job.zones.findIndex((zone) => zone.id === id);
    const zones = [...job.zones];
    const [zone] = zones.splice(from, 1);
    zones.splice(Math.max(0, Math.min(zones.length, from + by)), 0, zone!);
    return { ...job, zones };
  };

/** A copy beside the original by a tenth of its width. */
export const copyRing =
  (ref: RingRef): Edit =>
  (job) => {
    const ring = ringAt(job, ref);
    const { minX, maxX } = ringBounds(ring);
    const moved = ring.map((p) => ({ ...p, x: p.x + 0.1 * (maxX - minX) }));
    if (ref.kind === 'hole') return addHole(moved)(job);
    if (ref.kind === 'outline') return addZone(moved)(job);
    const zone = job.zones.find(({ id }) => id === ref.id)!;
    const added = addZone(moved, { purpose: zone.purpose })(job);
    return {
      ...added,
      zones: added.zones.map((item, i) =>
        i === added.zones.length - 1 ? { ...item, laminate: copiedLaminate(added, zone.laminate) } : item,
      ),
    };
  };

function copiedLaminate(job: Job, laminate: JobZone['laminate']): JobZone['laminate'] {
  let taken = job;
  const plies = laminate.plies.map((ply): ZonePly => {
    if ('through' in ply) return ply;
    const copy = { ...ply, id: freshId(taken, 'ply') };
    // Ids already given count as taken.
    taken = {
      ...taken,
      laminate: { ...taken.laminate, plies: [...taken.laminate.plies, copy] } as JobLaminate,
    };
    return copy;
  });
  return { ...laminate, plies };
}

/** A zone goes with the actions that wait for it. The outline stays. */
export const removeRing =
  (ref: RingRef): Edit =>
  (job) => {
    if (ref.kind === 'outline') return job;
    if (ref.kind === 'hole')
      return withPart({ holes: job.part.holes.filter((_, i) => i !== ref.index) })(job);
    return withoutTriggersOn(ref.id, { ...job, zones: job.zones.filter(({ id }) => id !== ref.id) });
  };

const regionOf = (ring: readonly Corner[]): Region => [{ outline: ring, holes: [] }];
const largest = (region: Region) =>
  [...region].sort((a, b) => Math.abs(ringArea(b.outline)) - Math.abs(ringArea(a.outline)))[0];

/** A ring grown or shrunk: the outline and holes in place, arcs becoming chords. */
export const offsetRing = (ref: RingRef, by: number) =>
  onRing(ref, (ring) => largest(offset(regionOf(ring), by))?.outline ?? ring);

/** A new zone as far inside (below 0) or outside the ring as asked: tape land, flange, drawn-in core. */
export const zoneByOffset =
  (ref: RingRef, by: number): Edit =>
  (job) => {
    const made = largest(offset(regionOf(ringAt(job, ref)), by));
    return made ? addZone(made.outline)(job) : job;
  };

/** A strip of even width along an edge, inside the part: a brake before a vent, a doubled edge. */
export const bandAlong =
  (ref: RingRef, index: number, width: number, purpose: JobZone['purpose']): Edit =>
  (job) => {
    const ring = ringAt(job, ref);
    const [a, b] = [ring[index]!, ring[(index + 1) % ring.length]!];
    const line = [...flattenEdge(a, b), { x: b.x, y: b.y }];
    const back = [...line].reverse().map((p) => ({ x: p.x + 1e-7, y: p.y + 1e-7 }));
    const thin = offset(regionOf([...line, ...back]), width, 'round');
    const made = largest(intersect(thin, [{ ...partPatch(job.part), holes: [] }]));
    return made ? addZone(simplified(made.outline), { purpose })(job) : job;
  };

/** Drops points that lie on the line of their neighbours to a tenth of a millimetre. */
function simplified(ring: readonly Corner[]): Corner[] {
  return ring.filter((p, i) => {
    const [a, b] = [ring[(i + ring.length - 1) % ring.length]!, ring[(i + 1) % ring.length]!];
    return distance(p, nearestOnSegment(p, a, b)) > 1e-4;
  });
}

/** The zone's shape joined to the part, or cut out of it; the zone itself goes. */
export const joinToPart =
  (zoneId: string, operation: 'unite' | 'subtract'): Edit =>
  (job) => {
    const zone = job.zones.find(({ id }) => id === zoneId);
    if (!zone) return job;
    const combine = operation === 'unite' ? unite : subtract;
    const made = largest(combine([partPatch(job.part)], regionOf(zone.outline)));
    if (!made) return job;
    return withPart({
      outline: rounded(simplified(made.outline)),
      holes: made.holes.map((hole) => rounded(simplified(hole))),
    })(removeRing({ kind: 'zone', id: zoneId })(job));
  };

/** Cuts a zone in two along a line; the outline loses its smaller side. */
export const splitRing =
  (ref: RingRef, a: Point, b: Point): Edit =>
  (job) => {
    const ring = ringAt(job, ref);
    const { left, right } = splitAlong({ outline: ring, holes: [] }, a, b);
    const [bigger, smaller] = regionArea(left) >= regionArea(right) ? [left, right] : [right, left];
    if (bigger.length === 0 || smaller.length === 0) return job;
    if (ref.kind !== 'zone') return withRing(ref, simplified(largest(bigger)!.outline))(job);
    const zone = job.zones.find(({ id }) => id === ref.id)!;
    const kept = withRing(ref, simplified(largest(bigger)!.outline))(job);
    return smaller.reduce((after, patch) => {
      const added = addZone(simplified(patch.outline), { purpose: zone.purpose })(after);
      const last = added.zones.at(-1)!;
      const laminate = copiedLaminate(added, zone.laminate);
      return { ...added, zones: added.zones.map((item) => (item === last ? { ...item, laminate } : item)) };
    }, kept);
  };

const featureNames: Record<JobFeature['kind'], string> = {
  rise: 'Rise',
  step: 'Step',
  insideCorner: 'Inside corner',
};

export const addFeature =
  (points: readonly Point[], kind: JobFeature['kind'] = 'rise'): Edit =>
  (job) => {
    const id = freshId(job, 'feature');
    const feature: JobFeature = {
      id,
      name: `${featureNames[kind]} ${id.split('-')[1]}`,
      kind,
      points: points.map(roundPoint),
      height: 0.05,
      radius: 0.01,
    };
    return withPart({ features: [...job.part.features, feature] })(job);
  };

export const updateFeature =
  (id: string, changes: Partial<JobFeature>): Edit =>
  (job) =>
    withPart({
      features: job.part.features.map((item) => (item.id === id ? { ...item, ...changes } : item)),
    })(job);

export const removeFeature =
  (id: string): Edit =>
  (job) =>
    withPart({ features: job.part.features.filter((item) => item.id !== id) })(job);
