import { emptyLaminate } from '../job/new-job.ts';
import { flattenEdge, ringArea, ringBounds, type Corner } from '@wick/core/geometry/arcs';
import { splitAlong } from '@wick/core/geometry/moves';
import { intersect, offset, regionArea, subtract, unite, type Region } from '@wick/core/geometry/overlay';
import { distance, nearestOnSegment, type Point } from '@wick/core/geometry/polygon';
import type { Job, JobZone, ZonePly } from '@wick/contract/job/job';
import { partPatch } from './patch.ts';
import { withPart, type Edit } from '../job/edits.ts';
import { idsFrom, newId, nextName } from '../job/ids.ts';
import { onLayout, withoutTriggersOn } from '../layout/edits.ts';
import { forget, leaveOff } from '../stack/edits.ts';
import { addHole, allZones, onRing, onZone, ringAt, rounded, withRing, type RingRef } from './edits.ts';

export type ZonePurpose = 'part' | 'brake';

const purposeWords = { part: 'Zone', brake: 'Brake' };

const purposeOf = (job: Job, id: string): ZonePurpose =>
  job.zones.some((zone) => zone.id === id) ? 'part' : 'brake';

const addTo =
  (purpose: ZonePurpose, zone: JobZone): Edit =>
  (job) =>
    purpose === 'part'
      ? { ...job, zones: [...job.zones, zone] }
      : onLayout(({ brakes }) => ({ brakes: [...brakes, zone] }))(job);

/** A zone starts out with the base laminate running through it; a brake with its first ply under peel ply, and no more. */
export const addZone =
  (
    ring: readonly Corner[],
    changes: { readonly name?: string; readonly purpose?: ZonePurpose } = {},
    id: string = newId(),
  ): Edit =>
  (job) => {
    const { purpose = 'part' } = changes;
    const { plies, ...rest } = job.laminate;
    const through = plies.map((ply) => ({ through: ply.id }));
    const laminate: JobZone['laminate'] =
      purpose === 'brake' ? { ...emptyLaminate, plies: through.slice(0, 1) } : { ...rest, plies: through };
    const name = changes.name ?? nextName(purposeWords[purpose], allZones(job));
    const added = addTo(purpose, { id, name, temperature: null, outline: rounded(ring), laminate })(job);
    return purpose === 'brake' ? leaveOff(id, ({ kind }) => kind !== 'peelPly')(added) : added;
  };

export const updateZone = (id: string, changes: Partial<Omit<JobZone, 'id' | 'laminate'>>): Edit =>
  onZone(id, (zone) => ({ ...zone, ...changes }));

/** A zone of the part becomes a brake of the layout worked on, or the other way round. */
export const withPurpose =
  (id: string, purpose: ZonePurpose): Edit =>
  (job) => {
    const zone = allZones(job).find((own) => own.id === id);
    return !zone || purposeOf(job, id) === purpose ? job : addTo(purpose, zone)(without(id)(job));
  };

const without =
  (id: string): Edit =>
  (job) =>
    onLayout(({ brakes }) => ({ brakes: brakes.filter((zone) => zone.id !== id) }))({
      ...job,
      zones: job.zones.filter((zone) => zone.id !== id),
    });

/** Puts a zone one place up or down in the order in which they lie over each other; brakes stay over the zones of the part. */
export const raiseZone =
  (id: string, by: 1 | -1): Edit =>
  (job) => {
    const moved = (zones: readonly JobZone[]) => {
      const from = zones.findIndex((zone) => zone.id === id);
      const after = [...zones];
      const [zone] = after.splice(from, 1);
      after.splice(Math.max(0, Math.min(after.length, from + by)), 0, zone!);
      return after;
    };
    return purposeOf(job, id) === 'part'
      ? { ...job, zones: moved(job.zones) }
      : onLayout(({ brakes }) => ({ brakes: moved(brakes) }))(job);
  };

/** A copy beside the original by a tenth of its width. */
export const copyRing =
  (ref: RingRef, id: string = newId()): Edit =>
  (job) => {
    const ring = ringAt(job, ref);
    const { minX, maxX } = ringBounds(ring);
    const moved = ring.map((p) => ({ ...p, x: p.x + 0.1 * (maxX - minX) }));
    if (ref.kind === 'hole') return addHole(moved, id)(job);
    if (ref.kind === 'outline') return addZone(moved, {}, id)(job);
    return addLike(ref.id, moved, id)(job);
  };

/** A zone of another shape with the purpose and the plies of one that is there. */
const addLike =
  (like: string, ring: readonly Corner[], id: string): Edit =>
  (job) => {
    const { laminate } = allZones(job).find((zone) => zone.id === like)!;
    const added = addZone(ring, { purpose: purposeOf(job, like) }, id)(job);
    const alike = onLayout(({ layers }) => ({
      layers: layers.map((layer) => ({ ...layer, except: exceptAs(layer.except, like, id) })),
    }))(added);
    return onZone(id, (zone) => ({ ...zone, laminate: copiedLaminate(laminate, idsFrom(id)) }))(alike);
  };

/** A zone's layers are those of another one. */
const exceptAs = (except: readonly string[], like: string, id: string): string[] => {
  const others = except.filter((own) => own !== id);
  return except.includes(like) ? [...others, id] : others;
};

/** The same plies under ids of their own. */
const copiedLaminate = (laminate: JobZone['laminate'], nextId: () => string): JobZone['laminate'] => ({
  ...laminate,
  plies: laminate.plies.map((ply): ZonePly => ('through' in ply ? ply : { ...ply, id: nextId() })),
});

/** A zone goes with the actions that wait for it. The outline stays. */
export const removeRing =
  (ref: RingRef): Edit =>
  (job) => {
    if (ref.kind === 'outline') return job;
    if (ref.kind === 'hole')
      return withPart({ holes: job.part.holes.filter(({ id }) => id !== ref.id) })(job);
    return withoutTriggersOn(ref.id, forget(ref.id)(without(ref.id)(job)));
  };

const regionOf = (ring: readonly Corner[]): Region => [{ outline: ring, holes: [] }];
const largest = (region: Region) =>
  [...region].sort((a, b) => Math.abs(ringArea(b.outline)) - Math.abs(ringArea(a.outline)))[0];

/** A ring grown or shrunk: the outline and holes in place, arcs becoming chords. */
export const offsetRing = (ref: RingRef, by: number) =>
  onRing(ref, (ring) => largest(offset(regionOf(ring), by))?.outline ?? ring);

/** A new zone as far inside (below 0) or outside the ring as asked: tape land, flange, drawn-in core. */
export const zoneByOffset =
  (ref: RingRef, by: number, id: string = newId()): Edit =>
  (job) => {
    const made = largest(offset(regionOf(ringAt(job, ref)), by));
    return made ? addZone(made.outline, {}, id)(job) : job;
  };

/** A strip of even width along an edge, inside the part: a brake before a vent, a doubled edge. */
export const bandAlong =
  (ref: RingRef, index: number, width: number, purpose: ZonePurpose, id: string = newId()): Edit =>
  (job) => {
    const ring = ringAt(job, ref);
    const [a, b] = [ring[index]!, ring[(index + 1) % ring.length]!];
    const line = [...flattenEdge(a, b), { x: b.x, y: b.y }];
    const back = [...line].reverse().map((p) => ({ x: p.x + 1e-7, y: p.y + 1e-7 }));
    const thin = offset(regionOf([...line, ...back]), width, 'round');
    const made = largest(intersect(thin, [{ ...partPatch(job.part), holes: [] }]));
    return made ? addZone(simplified(made.outline), { purpose }, id)(job) : job;
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
  (zoneId: string, operation: 'unite' | 'subtract', seed: string = newId()): Edit =>
  (job) => {
    const nextId = idsFrom(seed);
    const zone = allZones(job).find(({ id }) => id === zoneId);
    if (!zone) return job;
    const combine = operation === 'unite' ? unite : subtract;
    const made = largest(combine([partPatch(job.part)], regionOf(zone.outline)));
    if (!made) return job;
    return withPart({
      outline: rounded(simplified(made.outline)),
      holes: made.holes.map((hole) => ({ id: nextId(), outline: rounded(simplified(hole)) })),
    })(removeRing({ kind: 'zone', id: zoneId })(job));
  };

/** Cuts a zone in two along a line; the outline loses its smaller side. */
export const splitRing =
  (ref: RingRef, a: Point, b: Point, seed: string = newId()): Edit =>
  (job) => {
    const nextId = idsFrom(seed);
    const ring = ringAt(job, ref);
    const { left, right } = splitAlong({ outline: ring, holes: [] }, a, b);
    const [bigger, smaller] = regionArea(left) >= regionArea(right) ? [left, right] : [right, left];
    if (bigger.length === 0 || smaller.length === 0) return job;
    if (ref.kind !== 'zone') return withRing(ref, simplified(largest(bigger)!.outline))(job);
    const kept = withRing(ref, simplified(largest(bigger)!.outline))(job);
    return smaller.reduce(
      (after, patch) => addLike(ref.id, simplified(patch.outline), nextId())(after),
      kept,
    );
  };

/** Every zone of the part gone, with what waited for one. */
export const withoutZones: Edit = (job) =>
  job.zones.reduce((now, { id }) => removeRing({ kind: 'zone', id })(now), job);
