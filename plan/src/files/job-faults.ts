import { isThrough, resolvePlies } from '../laminate/through.ts';
import { layerWord, materialKindOf } from '../stack/kinds.ts';
import type { Job, JobLaminate, JobLayout, JobZone } from '@wick/contract/job/job';
import { polygonOf } from '@wick/core/geometry/arcs';
import { requireSimplePolygon } from '@wick/core/geometry/polygon';
import { ModelError } from '@wick/core/model-error';

/** What the shape of a job cannot say: the first thing that does not hang together, in a sentence; null where all does. */
export const faultOf = (job: Job): string | null => faultOfReferences(job) ?? faultOfRings(job);

/** The same but for rings that cross themselves, as a hand may leave them for a while. */
export const faultOfReferences = (job: Job): string | null =>
  faultOfIds(job) ?? faultOfThrough(job) ?? faultOfMaterials(job) ?? faultOfLayouts(job);

const zonesOf = (job: Job): JobZone[] => [...job.zones, ...job.layouts.flatMap(({ brakes }) => brakes)];

function faultOfIds(job: Job): string | null {
  const { layouts, marks, part, resin } = job;
  const plies = [job.laminate, ...zonesOf(job).map(({ laminate }) => laminate)].flatMap(
    (laminate) => laminate.plies,
  );
  const all = [
    ...layouts.flatMap(({ id, lines, tees, stations, layers }) => [
      { id },
      ...lines.flatMap((line) => [line, ...line.actions]),
      ...tees,
      ...stations,
      ...layers,
      ...layers.flatMap(({ covers }) => (covers.kind === 'areas' ? covers.areas : [])),
    ]),
    ...marks,
    ...zonesOf(job),
    ...part.features,
    ...part.sections,
    ...part.holes,
    ...resin.batches,
    ...plies.flatMap((ply) => (isThrough(ply) ? [] : [ply])),
  ];
  const twice = firstTwice(all.map(({ id }) => id));
  return twice === undefined
    ? null
    : `The id "${twice}" is used twice among plies, layouts, lines, their actions, marks, tees, pots, pumps, layers and their areas, zones, holes, features, sections and batches. Give each its own.`;
}

/** By sets: a job may hold thousands of things. */
function firstTwice(ids: readonly string[]): string | undefined {
  const seen = new Set<string>();
  return ids.find((id) => (seen.has(id) ? true : (seen.add(id), false)));
}

function faultOfThrough(job: Job): string | null {
  const base = new Set(job.laminate.plies.map(({ id }) => id));
  for (const { name, laminate } of zonesOf(job)) {
    const through = laminate.plies.filter(isThrough).map((ply) => ply.through);
    const lost = through.find((id) => !base.has(id));
    if (lost !== undefined)
      return `In ${name} the base ply "${lost}" runs through, which the base laminate does not have. Take it out of the zone.`;
    const doubled = firstTwice(through);
    if (doubled !== undefined)
      return `In ${name} the base ply "${doubled}" runs through twice. Take one out.`;
  }
  return null;
}

function faultOfMaterials(job: Job): string | null {
  const doubled = firstTwice(job.materials.map((material) => material.id));
  if (doubled !== undefined) return `The material "${doubled}" is listed twice. Remove one.`;
  const known = new Set(job.materials.map(({ kind, id }) => `${kind} ${id}`));
  const wanted: [string | null, string, string][] = [
    ...laminateWants(job.laminate, ''),
    ...zonesOf(job).flatMap(({ laminate, name }) =>
      laminateWants({ ...laminate, plies: resolvePlies(job, laminate.plies) }, ` of ${name}`),
    ),
    [job.resin.materialId, 'resin', 'The resin'],
    [job.vacuum.pumpId, 'pump', 'The pump'],
    [job.vacuum.potId, 'pot', 'The catch pot'],
    ...job.layouts.flatMap(({ lines, layers }) => [
      ...lines.flatMap(({ name, stockId, hoseId }): [string | null, string, string][] => [
        [stockId, 'line', name],
        [hoseId, 'hose', `The hose of ${name}`],
      ]),
      ...layers.map(({ kind, materialId }): [string | null, string, string] => [
        materialId,
        materialKindOf(kind) ?? 'none',
        `The layer ${layerWord(kind)}`,
      ]),
    ]),
  ];
  const lost = wanted.find(([id, kind]) => id !== null && !known.has(`${kind} ${id}`));
  return lost
    ? `${lost[2]} refers to "${lost[0]}", which is not among the file's materials. Add it there or choose another.`
    : null;
}

function laminateWants(laminate: JobLaminate, where: string): [string | null, string, string][] {
  return [
    ...laminate.plies.map((ply, i): [string, string, string] => [
      ply.materialId,
      'fabric',
      `Ply ${i + 1}${where}`,
    ]),
    [laminate.coreId, 'core', `The core${where}`],
  ];
}

function faultOfLayouts(job: Job): string | null {
  const taken = firstTwice(job.layouts.map(({ letter }) => letter));
  if (taken !== undefined) return `Two layouts are called ${taken}. Give each its own letter.`;
  if (!job.layouts.some(({ id }) => id === job.currentLayoutId))
    return `The layout worked on is "${job.currentLayoutId}", which is not there. Name one of the layouts.`;
  return job.layouts.map((layout) => danglingOf(job, layout)).find((fault) => fault !== null) ?? null;
}

/** A line whose tee, or whose trigger's line, mark or zone, is not there. */
function danglingOf({ marks, zones }: Job, { lines, tees, stations, brakes }: JobLayout): string | null {
  for (const { name, tee, stationId, actions } of lines) {
    if (tee !== null && !tees.some(({ id }) => id === tee))
      return `${name} hangs on the tee "${tee}", which is not there. Choose another or the pot.`;
    if (stationId !== null && !stations.some(({ id }) => id === stationId))
      return `The hose of ${name} runs to "${stationId}", which is not there. Choose another pot or pump.`;
    for (const { when } of actions) {
      const what = when.kind === 'passed' || when.kind === 'opened' ? when.what : null;
      const known = when.kind === 'passed' ? [...lines, ...marks] : lines;
      if (what !== null && !known.some(({ id }) => id === what))
        return `An action of ${name} waits for "${what}", which is not there. Choose another trigger.`;
      if (when.kind === 'zoneFull' && ![...zones, ...brakes].some(({ id }) => id === when.zone))
        return `An action of ${name} waits for the zone "${when.zone}", which is not there. Choose another trigger.`;
    }
  }
  return null;
}

function faultOfRings(job: Job): string | null {
  try {
    requireSimplePolygon(polygonOf(job.part.outline), 'The outline');
    job.part.holes.forEach(({ outline }, i) => requireSimplePolygon(polygonOf(outline), `Hole ${i + 1}`));
    zonesOf(job).forEach((zone) => requireSimplePolygon(polygonOf(zone.outline), zone.name));
    return null;
  } catch (error) {
    if (error instanceof ModelError) return error.message;
    throw error;
  }
}
