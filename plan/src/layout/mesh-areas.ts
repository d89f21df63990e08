import type { JobLine } from '@wick/contract/job/job';
import type { JobArea, JobLayer } from '@wick/contract/job/stack';
import { regionArea, strip, subtract, type Region } from '@wick/core/geometry/overlay';
import { polygonOf } from '@wick/core/geometry/arcs';
import { contains, type Point } from '@wick/core/geometry/polygon';
import { isInside } from '@wick/core/layouts/frame';
import { partShapeOf } from './fit.ts';
import type { LaidJob } from '../job/laid.ts';
import type { Edit } from '../job/edits.ts';
import { idsFrom, newId } from '../job/ids.ts';
import { conducts, isLeftOff } from '../stack/laid-on.ts';
import { patchesOn, plainPatches } from '../stack/regions.ts';
import { onLayout } from './edits.ts';

/** Usual distance between the end of the mesh and a vent, m: common practice, no source. */
export const MESH_GAP = 0.05;
/** Mesh so near beside a place touches it, m. */
const BESIDE = 0.004;
/** Scraps smaller than this are not laid, m2. */
const SCRAP = 1e-4;

export const isMesh = (layer: JobLayer): boolean => layer.kind === 'flowMesh' && conducts(layer);

/** Flow mesh lies at a place of the part or right beside it. */
export function meshAround(job: LaidJob, at: Point): boolean {
  const part = partShapeOf(job);
  const beside = Array.from({ length: 8 }, (_, k) => ({
    x: at.x + BESIDE * Math.cos((k * Math.PI) / 4),
    y: at.y + BESIDE * Math.sin((k * Math.PI) / 4),
  }));
  return [at, ...beside].some((p) => isInside(part, p) && hasMesh(job, p));
}

function hasMesh(job: LaidJob, at: Point): boolean {
  const zone = job.zones.findLast(({ outline }) => contains(polygonOf(outline), at));
  return job.layers.some((layer) => {
    if (!isMesh(layer) || isLeftOff(layer, zone?.id ?? null)) return false;
    const patches = patchesOn(job, layer);
    return patches === null || patches.some((patch) => isInside(patch, at));
  });
}

/** Areas drawn for flow mesh. */
export const meshAreasOf = ({ layers }: Pick<LaidJob, 'layers'>): JobArea[] =>
  layers.flatMap(({ kind, covers }) => (kind === 'flowMesh' && covers.kind === 'areas' ? covers.areas : []));

/** Ends the flow mesh short of vents by a gap in m: of all of them, but where it was drawn, of one. */
export const endMeshShort = (vent: Pick<JobLine, 'points'>, gap: number, seed: string = newId()): Edit =>
  onLayout(({ layers }) => ({ layers: layers.map((layer) => endedShort(layer, vent, gap, seed)) }));

/** A layer that ends so far short of vents; as it is where it is no mesh. */
function endedShort(
  layer: JobLayer,
  vent: Pick<JobLine, 'points'>,
  gap: number,
  seed: string = newId(),
): JobLayer {
  const { covers } = layer;
  if (!isMesh(layer)) return layer;
  if (covers.kind === 'part')
    return { ...layer, covers: { ...covers, vent: Math.max(gap, covers.vent ?? 0) } };
  return covers.kind === 'areas'
    ? { ...layer, covers: { kind: 'areas', areas: areasShortOf(covers.areas, vent, gap, seed) } }
    : layer;
}

/** What is left of drawn areas; the first piece of each keeps its id and name. */
function areasShortOf(
  areas: readonly JobArea[],
  { points }: Pick<JobLine, 'points'>,
  gap: number,
  seed: string,
): JobArea[] {
  const nextId = idsFrom(seed);
  const cut = strip(points, gap);
  return areas.flatMap((area) => {
    const left: Region = subtract([area], cut).filter((patch) => regionArea([patch]) > SCRAP);
    return plainPatches(left).map(({ outline, holes }, n) => ({
      id: n === 0 ? area.id : nextId(),
      name: n === 0 ? area.name : `${area.name} ${n + 1}`.slice(0, 40),
      outline: [...outline],
      holes: holes.map((hole) => [...hole]),
    }));
  });
}
