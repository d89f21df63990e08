import { flattenEdge, ringArea, ringBounds, type Corner } from '@wick/core/geometry/arcs';
import { splitAlong } from '@wick/core/geometry/moves';
import { intersect, offset, regionArea, subtract, unite, type Region } from '@wick/core/geometry/overlay';
import { distance, nearestOnSegment, type Point } from '@wick/core/geometry/polygon';
import { emptyLaminate, type Job, type JobLaminate, type JobZone, type ZonePly } from '@wick/contract/job';
import { partPatch } from '@wick/contract/ply-book';
import { freshId, withoutTriggersOn, withPart, type Edit } from './job-edits.ts';
import { addHole, onRing, ringAt, rounded, withRing, type RingRef } from './ring-edits.ts';

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
