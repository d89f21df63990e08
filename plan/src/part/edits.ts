import type { JobArea } from '@wick/contract/job/stack';
import { polygonOf, ringBounds, withBulge, type Corner } from '@wick/core/geometry/arcs';
import {
  aimEdge,
  bendEdge,
  isRectangle,
  mirroredLine,
  mirroredRing,
  sizedTo,
  splitEdge,
  stretchRectangle,
} from '@wick/core/geometry/moves';
import { contains, type Point } from '@wick/core/geometry/polygon';
import type { Job, JobHole, JobLayout, JobZone, ZonePly } from '@wick/contract/job/job';
import { roundPoint, shift, withPart, type Edit } from '../job/edits.ts';
import { idsFrom, newId } from '../job/ids.ts';
import { currentLayout } from '../job/laid.ts';

/** One ring of the plan. */
export type RingRef =
  | { readonly kind: 'outline' }
  | { readonly kind: 'hole'; readonly id: string }
  | { readonly kind: 'zone'; readonly id: string };

export const isSameRing = (a: RingRef | null, b: RingRef | null) => JSON.stringify(a) === JSON.stringify(b);

/** Zones of the part and brakes of the layout worked on, in the order in which they lie over each other. */
export const allZones = (job: Job): JobZone[] => [...job.zones, ...currentLayout(job).brakes];

const zoneById = (job: Job, id: string) => allZones(job).find((zone) => zone.id === id);

/** All rings, those on top first: as a hand meets them. */
export function ringRefs(job: Job): RingRef[] {
  return [
    ...job.part.holes.map(({ id }): RingRef => ({ kind: 'hole', id })),
    ...allZones(job)
      .reverse()
      .map(({ id }): RingRef => ({ kind: 'zone', id })),
    { kind: 'outline' },
  ];
}

/** Empty for a ring that is gone. */
export function ringAt(job: Job, ref: RingRef): readonly Corner[] {
  if (ref.kind === 'outline') return job.part.outline;
  if (ref.kind === 'hole') return job.part.holes.find(({ id }) => id === ref.id)?.outline ?? [];
  return zoneById(job, ref.id)?.outline ?? [];
}

export function ringName(job: Job, ref: RingRef): string {
  if (ref.kind === 'outline') return 'Outline';
  if (ref.kind === 'hole') return `Hole ${1 + job.part.holes.findIndex(({ id }) => id === ref.id)}`;
  return zoneById(job, ref.id)?.name ?? 'Zone';
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
      return withPart({
        holes: job.part.holes.map((hole) => (hole.id === ref.id ? { ...hole, outline } : hole)),
      })(job);
    return onZone(ref.id, (zone) => ({ ...zone, outline }))(job);
  };

/** Changes a zone of the part, or a brake of the layout worked on, wherever it is kept. */
export const onZone =
  (id: string, change: (zone: JobZone) => JobZone): Edit =>
  (job) => {
    const changed = (zones: JobZone[]) => zones.map((zone) => (zone.id === id ? change(zone) : zone));
    if (job.zones.some((zone) => zone.id === id)) return { ...job, zones: changed(job.zones) };
    const current = currentLayout(job);
    if (!current.brakes.some((zone) => zone.id === id)) return job;
    return {
      ...job,
      layouts: job.layouts.map((layout) =>
        layout === current ? { ...layout, brakes: changed(layout.brakes) } : layout,
      ),
    };
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
/** An edge of another length in its own direction; a rectangle stays one. */
export const setEdgeLength = (ref: RingRef, index: number, length: number) =>
  onRing(ref, (ring) => {
    if (isRectangle(ring)) return stretchRectangle(ring, index, length);
    const [from, to] = [ring[index]!, ring[(index + 1) % ring.length]!];
    return aimEdge(ring, index, { length, angle: Math.atan2(to.y - from.y, to.x - from.x) });
  });
/** Another over-all size along or across the plan. */
export const sizeRing = (ref: RingRef, axis: 'x' | 'y', size: number) =>
  onRing(ref, (ring) => sizedTo(ring, axis, size));

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
  const areaOf = (area: JobArea): JobArea => ({
    ...area,
    outline: ofLine(area.outline).map(roundPoint),
    holes: area.holes.map((hole) => ofLine(hole).map(roundPoint)),
  });
  const layoutOf = (layout: JobLayout): JobLayout => ({
    ...layout,
    lines: layout.lines.map((line) => ({ ...line, points: ofLine(line.points).map(roundPoint) })),
    tees: layout.tees.map((tee) => ({ ...tee, place: tee.place && at(tee.place) })),
    stations: layout.stations.map((station) => ({ ...station, place: at(station.place) })),
    layers: layout.layers.map((layer) =>
      layer.covers.kind === 'areas'
        ? { ...layer, covers: { kind: 'areas', areas: layer.covers.areas.map(areaOf) } }
        : layer,
    ),
    brakes: zonesOf(layout.brakes),
  });
  return {
    ...job,
    part: {
      ...job.part,
      outline: rounded(ofRing(job.part.outline)),
      holes: job.part.holes.map((hole) => ({ ...hole, outline: rounded(ofRing(hole.outline)) })),
      features: job.part.features.map((f) => ({ ...f, points: ofLine(f.points).map(roundPoint) })),
      sections: job.part.sections.map((s) => ({ ...s, points: ofLine(s.points).map(roundPoint) })),
    },
    zones: zonesOf(job.zones),
    layouts: job.layouts.map(layoutOf),
    marks: job.marks.map((mark) => ({ ...mark, ...at(mark) })),
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
    layouts: mirrored.layouts.map((layout) => ({ ...layout, brakes: layout.brakes.map(turnedZone) })),
  };
};

/** A hole or zone mirrored in place. */
export const mirrorRing = (ref: RingRef) =>
  onRing(ref, (ring) => {
    const { minX, maxX } = ringBounds(ring);
    return mirroredRing(ring, (minX + maxX) / 2);
  });

export const addHole =
  (ring: readonly Corner[], id: string = newId()): Edit =>
  (job) =>
    withPart({ holes: [...job.part.holes, { id, outline: rounded(ring) }] })(job);

/** Another outline with its holes; what else lies on the plan stays. */
export const withPatch =
  (
    patch: { readonly outline: readonly Corner[]; readonly holes: readonly (readonly Corner[])[] },
    seed: string = newId(),
  ): Edit =>
  (job) => {
    const nextId = idsFrom(seed);
    const holes = patch.holes.map((hole) => ({ id: nextId(), outline: rounded(hole) }));
    return withPart({ outline: rounded(patch.outline), holes })(job);
  };

/** Another outline, drawn by hand; holes that lie off it would only be in the way. */
export const withOutline =
  (ring: readonly Corner[]): Edit =>
  (job) => {
    const { minX, minY, maxX, maxY } = ringBounds(polygonOf(ring));
    const isOn = ({ outline }: JobHole) =>
      outline.some((p) => p.x > minX && p.x < maxX && p.y > minY && p.y < maxY);
    return withPart({ outline: rounded(ring), holes: job.part.holes.filter(isOn) })(job);
  };
