import { distance, nearestOnSegment, type Point } from '@wick/core/geometry/polygon';
import type { JobMeshArea, JobStation, JobTee } from '@wick/contract/job';
import type { MaterialOf } from '@wick/contract/materials';
import { freshId, keepUsed, roundPoint, shift, updateLine, type Edit } from './job-edits.ts';

/** Edits of what is laid round the lines: pots, pumps, tees, mesh areas, stock. Each returns a new job. */

export type FittingKind = JobStation['kind'] | 'tee';

const stationWords = { pot: 'Pot', pump: 'Pump' };

/** Puts a pot, a pump or a tee on the plan; the first tee that has no place yet is the one that is put there. */
export const addFitting =
  (kind: FittingKind, at: Point): Edit =>
  (job) => {
    const place = roundPoint(at);
    if (kind !== 'tee') {
      const id = freshId(job, kind);
      const name = `${stationWords[kind]} ${id.split('-')[1]}`;
      return { ...job, stations: [...job.stations, { id, kind, name, place, level: null }] };
    }
    const waiting = job.tees.find((tee) => tee.place === null);
    return waiting ? updateTee(waiting.id, { place, hoseLength: null })(job) : addTee(place)(job);
  };

export const updateStation =
  (id: string, changes: Partial<JobStation>): Edit =>
  (job) => ({
    ...job,
    stations: job.stations.map((station) => (station.id === id ? { ...station, ...changes } : station)),
  });

export const updateTee =
  (id: string, changes: Partial<JobTee>): Edit =>
  (job) => ({ ...job, tees: job.tees.map((tee) => (tee.id === id ? { ...tee, ...changes } : tee)) });

export const addTee =
  (place: Point | null = null): Edit =>
  (job) => {
    const id = freshId(job, 'tee');
    const name = `Tee ${id.split('-')[1]}`;
    return {
      ...job,
      tees: [...job.tees, { id, name, place, hoseLength: place ? null : 1.5, hoseBore: 0.012 }],
    };
  };

/** Feeds on a tee that goes hang on the pot again. */
export const removeTee =
  (id: string): Edit =>
  (job) => ({
    ...job,
    tees: job.tees.filter((tee) => tee.id !== id),
    lines: job.lines.map((line) => (line.tee === id ? { ...line, tee: null } : line)),
  });

/** Lines whose pot or pump goes take the first that is left. */
export const removeStation =
  (id: string): Edit =>
  (job) => ({
    ...job,
    stations: job.stations.filter((station) => station.id !== id),
    lines: job.lines.map((line) => (line.stationId === id ? { ...line, stationId: null } : line)),
  });

/** A pot, pump, tee or mesh area by id; whatever else has that id is left alone. */
export const moveFitting =
  (id: string, by: Point): Edit =>
  (job) => ({
    ...job,
    stations: job.stations.map((s) => (s.id === id ? { ...s, place: shift(s.place, by) } : s)),
    tees: job.tees.map((t) => (t.id === id && t.place ? { ...t, place: shift(t.place, by) } : t)),
    meshAreas: job.meshAreas.map((area) =>
      area.id === id
        ? {
            ...area,
            outline: area.outline.map((p) => shift(p, by)),
            holes: area.holes.map((hole) => hole.map((p) => shift(p, by))),
          }
        : area,
    ),
  });

export const removeFitting =
  (id: string): Edit =>
  (job) =>
    removeMeshArea(id)(removeStation(id)(removeTee(id)(job)));

export const addMeshArea =
  (outline: readonly Point[]): Edit =>
  (job) => {
    const id = freshId(job, 'mesh');
    const area: JobMeshArea = {
      id,
      name: `Mesh ${id.split('-')[1]}`,
      outline: outline.map(roundPoint),
      holes: [],
    };
    return { ...job, meshAreas: [...job.meshAreas, area] };
  };

const removeMeshArea =
  (id: string): Edit =>
  (job) => ({ ...job, meshAreas: job.meshAreas.filter((area) => area.id !== id) });

/** What a line is cut from: its bore goes with it. Null leaves the bore as typed. */
export const withStock =
  (lineId: string, stock: MaterialOf<'line'> | null): Edit =>
  (job) =>
    keepUsed(
      updateLine(lineId, stock ? { stockId: stock.id, bore: stock.bore } : { stockId: null })(job),
      stock ? [stock] : [],
    );

export const withHose =
  (lineId: string, hose: MaterialOf<'hose'> | null): Edit =>
  (job) =>
    keepUsed(
      updateLine(lineId, hose ? { hoseId: hose.id, hoseBore: null } : { hoseId: null })(job),
      hose ? [hose] : [],
    );

/** Puts a corner into the segment of a line that is nearest to a place. */
export const bendLine =
  (lineId: string, at: Point): Edit =>
  (job) => {
    const line = job.lines.find(({ id }) => id === lineId);
    if (!line || line.points.length < 2) return job;
    const away = line.points.slice(1).map((b, i) => distance(at, nearestOnSegment(at, line.points[i]!, b)));
    const segment = away.indexOf(Math.min(...away));
    const points = [...line.points.slice(0, segment + 1), roundPoint(at), ...line.points.slice(segment + 1)];
    return updateLine(lineId, { points })(job);
  };
