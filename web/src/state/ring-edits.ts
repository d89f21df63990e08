import { polygonOf, ringBounds, withBulge, type Corner } from '@wick/core/geometry/arcs';
import { aimEdge, bendEdge, mirroredLine, mirroredRing, splitEdge } from '@wick/core/geometry/moves';
import { contains, type Point } from '@wick/core/geometry/polygon';
import type { Job, JobZone, ZonePly } from '@wick/contract/job';
import { roundPoint, shift, withPart, type Edit } from './job-edits.ts';

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

/** Positions are kept to a tenth of a millimetre. */
export const rounded = (ring: readonly Corner[]) => ring.map((p) => withBulge(roundPoint(p), p.bulge ?? 0));

export const withRing =
  (ref: RingRef, ring: readonly Corner[]): Edit =>
  (job) => {
    const outline = rounded(ring);
    if (ref.kind === 'outline') return withPart({ outline })(job);
    if (ref.kind === 'hole')
      return withPart({ holes: job.part.holes.map((hole, i) => (i === ref.index ? outline : hole)) })(job);
    return { ...job, zones: job.zones.map((zone) => (zone.id === ref.id ? { ...zone, outline } : zone)) };
  };

export const onRing =
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
  const at = (p: Point) => roundPoint(ofLine([p])[0]!);
  const zonesOf = (zones: Job['zones']) =>
    zones.map((zone) => ({ ...zone, outline: rounded(ofRing(zone.outline)) }));
  const layoutOf = ({
    lines,
    tees,
    stations,
    meshAreas,
  }: Pick<Job, 'lines' | 'tees' | 'stations' | 'meshAreas'>) => ({
    lines: lines.map((line) => ({ ...line, points: ofLine(line.points).map(roundPoint) })),
    tees: tees.map((tee) => ({ ...tee, place: tee.place && at(tee.place) })),
    stations: stations.map((station) => ({ ...station, place: at(station.place) })),
    meshAreas: meshAreas.map((area) => ({
      ...area,
      outline: ofLine(area.outline).map(roundPoint),
      holes: area.holes.map((hole) => ofLine(hole).map(roundPoint)),
    })),
  });
  return {
    ...job,
    part: {
      ...job.part,
      outline: rounded(ofRing(job.part.outline)),
      holes: job.part.holes.map((hole) => rounded(ofRing(hole))),
      features: job.part.features.map((f) => ({ ...f, points: ofLine(f.points).map(roundPoint) })),
    },
    zones: zonesOf(job.zones),
    ...layoutOf(job),
    marks: job.marks.map((mark) => ({ ...mark, ...at(mark) })),
    variants: job.variants.map((variant) => ({
      ...variant,
      ...layoutOf(variant),
      brakes: zonesOf(variant.brakes),
    })),
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
  const turnedZone = (zone: JobZone): JobZone => ({
    ...zone,
    laminate: {
      ...zone.laminate,
      plies: zone.laminate.plies.map((ply): ZonePly => ('through' in ply ? ply : turned(ply))),
    },
  });
  const { rise } = mirrored.part;
  return {
    ...mirrored,
    part: { ...mirrored.part, rise: rise && { x: -rise.x, y: rise.y } },
    laminate: { ...mirrored.laminate, plies: mirrored.laminate.plies.map(turned) },
    zones: mirrored.zones.map(turnedZone),
    variants: mirrored.variants.map((variant) => ({ ...variant, brakes: variant.brakes.map(turnedZone) })),
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
