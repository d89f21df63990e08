import type { JobStation, JobTee } from '@wick/contract/job/job';
import type { JobArea } from '@wick/contract/job/stack';
import type { Point } from '@wick/core/geometry/polygon';
import { roundPoint, shift, type Edit } from '../job/edits.ts';
import { idsFrom, newId, nextName } from '../job/ids.ts';
import { currentLayout } from '../job/laid.ts';
import { addLayer, newLayer, onAreas, updateLayer } from '../stack/edits.ts';
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

const movedArea = (area: JobArea, by: Point): JobArea => ({
  ...area,
  outline: area.outline.map((p) => shift(p, by)),
  holes: area.holes.map((hole) => hole.map((p) => shift(p, by))),
});

/** A pot, pump, tee or mesh area by id; whatever else has that id is left alone. */
export const moveFitting =
  (id: string, by: Point): Edit =>
  (job) =>
    onAreas((area) => (area.id === id ? movedArea(area, by) : area))(
      onLayout(({ stations, tees }) => ({
        stations: stations.map((s) => (s.id === id ? { ...s, place: shift(s.place, by) } : s)),
        tees: tees.map((t) => (t.id === id && t.place ? { ...t, place: shift(t.place, by) } : t)),
      }))(job),
    );

export const removeFitting =
  (id: string): Edit =>
  (job) =>
    removeMeshArea(id)(removeStation(id)(removeTee(id)(job)));

/** Flow mesh is laid on a drawn area: further on the areas it has, or there alone. Without a mesh it waits for one to be chosen. */
export const addMeshArea =
  (outline: readonly Point[], id: string = newId()): Edit =>
  (job) => {
    const { layers } = currentLayout(job);
    const mesh = layers.find(({ kind }) => kind === 'flowMesh');
    const areas = mesh?.covers.kind === 'areas' ? mesh.covers.areas : [];
    const area = { id, name: nextName('Mesh', areas), outline: outline.map(roundPoint), holes: [] };
    const covers = { kind: 'areas', areas: [...areas, area] } as const;
    return mesh
      ? updateLayer(mesh.id, { covers: { ...covers, areas: [...covers.areas] } })(job)
      : addLayer({
          ...newLayer('flowMesh', null, idsFrom(id)()),
          covers: { ...covers, areas: [...covers.areas] },
        })(job);
  };

/** Mesh whose last area goes lies on the whole part again. */
const removeMeshArea =
  (id: string): Edit =>
  (job) => {
    const holder = currentLayout(job).layers.find(
      ({ covers }) => covers.kind === 'areas' && covers.areas.some((area) => area.id === id),
    );
    if (holder?.covers.kind !== 'areas') return job;
    return holder.covers.areas.length > 1
      ? onAreas((area) => (area.id === id ? null : area))(job)
      : updateLayer(holder.id, { covers: newLayer(holder.kind, null, holder.id).covers })(job);
  };
