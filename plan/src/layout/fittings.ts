import type { JobMeshArea, JobStation, JobTee } from '@wick/contract/job/job';
import type { Point } from '@wick/core/geometry/polygon';
import { roundPoint, shift, type Edit } from '../job/edits.ts';
import { newId, nextName } from '../job/ids.ts';
import { currentLayout } from '../job/laid.ts';
import { onLayout } from './edits.ts';

/** Edits of what is laid round the lines: pots, pumps, tees, mesh areas. */

export type FittingKind = JobStation['kind'] | 'tee';

const stationWords = { pot: 'Pot', pump: 'Pump' };

/** Hose behind a tee that has not been put on the plan, m: common practice, no source. */
const TEE_HOSE = 1.5;
const TEE_BORE = 0.012;

/** Puts a pot, a pump or a tee on the plan; the first tee that has no place yet is the one that is put there. */
export const addFitting =
  (kind: FittingKind, at: Point, id: string = newId()): Edit =>
  (job) => {
    const place = roundPoint(at);
    if (kind !== 'tee')
      return onLayout(({ stations }) => ({
        stations: [
          ...stations,
          { id, kind, name: nextName(stationWords[kind], stations), place, level: null },
        ],
      }))(job);
    const waiting = currentLayout(job).tees.find((tee) => tee.place === null);
    return waiting ? updateTee(waiting.id, { place, hoseLength: null })(job) : addTee(place, id)(job);
  };

export const updateStation = (id: string, changes: Partial<JobStation>): Edit =>
  onLayout(({ stations }) => ({
    stations: stations.map((station) => (station.id === id ? { ...station, ...changes } : station)),
  }));

export const updateTee = (id: string, changes: Partial<JobTee>): Edit =>
  onLayout(({ tees }) => ({ tees: tees.map((tee) => (tee.id === id ? { ...tee, ...changes } : tee)) }));

export const addTee = (place: Point | null = null, id: string = newId()): Edit =>
  onLayout(({ tees }) => ({
    tees: [
      ...tees,
      { id, name: nextName('Tee', tees), place, hoseLength: place ? null : TEE_HOSE, hoseBore: TEE_BORE },
    ],
  }));

/** Feeds on a tee that goes hang on the pot again. */
export const removeTee = (id: string): Edit =>
  onLayout(({ tees, lines }) => ({
    tees: tees.filter((tee) => tee.id !== id),
    lines: lines.map((line) => (line.tee === id ? { ...line, tee: null } : line)),
  }));

/** Lines whose pot or pump goes take the first that is left. */
export const removeStation = (id: string): Edit =>
  onLayout(({ stations, lines }) => ({
    stations: stations.filter((station) => station.id !== id),
    lines: lines.map((line) => (line.stationId === id ? { ...line, stationId: null } : line)),
  }));

const movedArea = (area: JobMeshArea, by: Point): JobMeshArea => ({
  ...area,
  outline: area.outline.map((p) => shift(p, by)),
  holes: area.holes.map((hole) => hole.map((p) => shift(p, by))),
});

/** A pot, pump, tee or mesh area by id; whatever else has that id is left alone. */
export const moveFitting = (id: string, by: Point): Edit =>
  onLayout(({ stations, tees, meshAreas }) => ({
    stations: stations.map((s) => (s.id === id ? { ...s, place: shift(s.place, by) } : s)),
    tees: tees.map((t) => (t.id === id && t.place ? { ...t, place: shift(t.place, by) } : t)),
    meshAreas: meshAreas.map((area) => (area.id === id ? movedArea(area, by) : area)),
  }));

export const removeFitting =
  (id: string): Edit =>
  (job) =>
    removeMeshArea(id)(removeStation(id)(removeTee(id)(job)));

export const addMeshArea = (outline: readonly Point[], id: string = newId()): Edit =>
  onLayout(({ meshAreas }) => ({
    meshAreas: [
      ...meshAreas,
      { id, name: nextName('Mesh', meshAreas), outline: outline.map(roundPoint), holes: [] },
    ],
  }));

const removeMeshArea = (id: string): Edit =>
  onLayout(({ meshAreas }) => ({ meshAreas: meshAreas.filter((area) => area.id !== id) }));
