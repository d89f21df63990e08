import { isThrough } from './through.ts';
import type { Job, JobLaminate, JobPly, JobZone, ZonePly } from '@wick/contract/job/job';
import type { Material } from '@wick/contract/materials';
import type { Edit } from '../job/edits.ts';
import { idsFrom, newId } from '../job/ids.ts';
import { keepUsed } from '../job/materials.ts';
import { allZones, onZone } from '../part/edits.ts';

/** The base laminate (null) or that of a zone. */
export type BookId = string | null;
type AnyLaminate = Omit<JobLaminate, 'plies'> & { plies: readonly ZonePly[] };

export function laminateAt(job: Job, book: BookId): AnyLaminate {
  return book === null
    ? job.laminate
    : (allZones(job).find(({ id }) => id === book)?.laminate ?? job.laminate);
}

/** Changes one laminate, bringing in the materials it names. */
export const withLaminate =
  (book: BookId, changes: Partial<AnyLaminate>, materials: readonly Material[] = []): Edit =>
  (job) => {
    if (book !== null)
      return keepUsed(
        onZone(book, (zone) => ({
          ...zone,
          laminate: { ...zone.laminate, ...changes, plies: [...(changes.plies ?? zone.laminate.plies)] },
        }))(job),
        materials,
      );
    const plies = (changes.plies ?? job.laminate.plies).filter((ply): ply is JobPly => !isThrough(ply));
    const stays = (ply: ZonePly) => !isThrough(ply) || plies.some(({ id }) => id === ply.through);
    // A ply taken out of the base no longer runs through anything.
    const still = (zone: JobZone): JobZone =>
      zone.laminate.plies.every(stays)
        ? zone
        : { ...zone, laminate: { ...zone.laminate, plies: zone.laminate.plies.filter(stays) } };
    return keepUsed(
      {
        ...job,
        laminate: { ...job.laminate, ...changes, plies },
        zones: job.zones.map(still),
        layouts: job.layouts.map((layout) => ({ ...layout, brakes: layout.brakes.map(still) })),
      },
      materials,
    );
  };

/** New plies on top, one or several alike; in the base they run through every zone that all the base runs through. */
export const addPly =
  (book: BookId, fabric: Material, angle: number, count = 1, seed: string = newId()): Edit =>
  (job) => {
    const nextId = idsFrom(seed);
    const added = Array.from({ length: count }, (): JobPly => ({
      id: nextId(),
      materialId: fabric.id,
      angle,
      inset: 0,
    }));
    const after = withLaminate(book, { plies: [...laminateAt(job, book).plies, ...added] }, [fabric])(job);
    if (book !== null) return after;
    const runsOn = (plies: readonly ZonePly[]) =>
      job.laminate.plies.length > 0 &&
      job.laminate.plies.every(({ id }) => plies.some((item) => isThrough(item) && item.through === id));
    const through = added.map(({ id }): ZonePly => ({ through: id }));
    return {
      ...after,
      zones: after.zones.map((zone) =>
        runsOn(zone.laminate.plies) || zone.laminate.plies.length === 0
          ? { ...zone, laminate: { ...zone.laminate, plies: [...zone.laminate.plies, ...through] } }
          : zone,
      ),
    };
  };

export const keyOf = (ply: ZonePly) => (isThrough(ply) ? ply.through : ply.id);

/** Takes the ply at one place and puts it at another. */
export const movePly =
  (book: BookId, from: number, to: number): Edit =>
  (job) => {
    const plies = [...laminateAt(job, book).plies];
    if (from === to || from < 0 || from >= plies.length || to < 0 || to >= plies.length) return job;
    const [ply] = plies.splice(from, 1);
    plies.splice(to, 0, ply!);
    return withLaminate(book, { plies })(job);
  };

/** Turns, drops back or exchanges a ply; one that runs through a zone is changed where it stands: in the base. */
export const updatePly =
  (book: BookId, index: number, changes: Partial<JobPly>, materials: readonly Material[] = []): Edit =>
  (job) => {
    const target = laminateAt(job, book).plies[index]!;
    if (isThrough(target)) {
      const inBase = job.laminate.plies.findIndex(({ id }) => id === target.through);
      return inBase < 0 ? job : updatePly(null, inBase, changes, materials)(job);
    }
    const plies = laminateAt(job, book).plies.map((ply, i) =>
      i === index ? { ...target, ...changes } : ply,
    );
    return withLaminate(book, { plies }, materials)(job);
  };

export const removePly =
  (book: BookId, index: number): Edit =>
  (job) =>
    withLaminate(book, { plies: laminateAt(job, book).plies.filter((_, i) => i !== index) })(job);

/** The same ply so many times more, above itself; of one that runs through, plies of the zone's own. */
export const repeatPly =
  (book: BookId, index: number, times = 1, seed: string = newId()): Edit =>
  (job) => {
    const nextId = idsFrom(seed);
    const plies = [...laminateAt(job, book).plies];
    const ply = plies[index]!;
    const source = isThrough(ply) ? job.laminate.plies.find(({ id }) => id === ply.through)! : ply;
    plies.splice(index + 1, 0, ...Array.from({ length: times }, () => ({ ...source, id: nextId() })));
    return withLaminate(book, { plies })(job);
  };

/** The base ply runs on through a zone, or stops at its edge; put where its neighbours of the base stand. */
export const setThrough =
  (zoneId: string, plyId: string, runsOn: boolean): Edit =>
  (job) => {
    const plies = laminateAt(job, zoneId).plies.filter((ply) => !isThrough(ply) || ply.through !== plyId);
    if (!runsOn) return withLaminate(zoneId, { plies })(job);
    const order = job.laminate.plies.map(({ id }) => id);
    const above = order.slice(order.indexOf(plyId) + 1);
    const at = plies.findIndex((ply) => isThrough(ply) && above.includes(ply.through));
    plies.splice(at < 0 ? plies.length : at, 0, { through: plyId });
    return withLaminate(zoneId, { plies })(job);
  };

/** Plies of the laminate once more in reverse, which makes it symmetric. */
export const mirrorStack =
  (book: BookId, seed: string = newId()): Edit =>
  (job) => {
    const nextId = idsFrom(seed);
    const { plies } = laminateAt(job, book);
    const own = plies.flatMap((ply) =>
      isThrough(ply) ? job.laminate.plies.filter(({ id }) => id === ply.through) : [ply],
    );
    const mirrored = [...own].reverse().map((ply) => ({ ...ply, id: nextId() }));
    return withLaminate(book, { plies: [...plies, ...mirrored] })(job);
  };

/** Each ply from a place up ends a step farther back than the one beneath it. */
export const stagger =
  (book: BookId, step: number): Edit =>
  (job) => {
    let n = 0;
    const plies = laminateAt(job, book).plies.map((ply) =>
      isThrough(ply) ? ply : { ...ply, inset: step * n++ },
    );
    return withLaminate(book, { plies })(job);
  };
