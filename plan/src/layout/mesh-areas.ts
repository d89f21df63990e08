import { polygonOf } from '@wick/core/geometry/arcs';
import { regionArea, strip, subtract, type Region } from '@wick/core/geometry/overlay';
import { contains, type Point } from '@wick/core/geometry/polygon';
import { straightenedRing } from '@wick/core/geometry/along';
import { isInside } from '@wick/core/layouts/frame';
import { partShapeOf } from './fit.ts';
import type { Job, JobLine, JobMeshArea } from '@wick/contract/job/job';
import type { LaidJob } from '../job/laid.ts';
import { roundPoint, type Edit } from '../job/edits.ts';
import { idsFrom, newId } from '../job/ids.ts';
import { partPatch } from '../laminate/ply-book.ts';
import { onLayout } from './edits.ts';

/** Usual distance between the end of the mesh and a vent, m: common practice, no source. */
export const MESH_GAP = 0.05;
/** Mesh so near beside a place touches it, m. */
const BESIDE = 0.004;
/** Nobody cuts mesh more exactly, m. */
const TOLERANCE = 2e-3;
/** Scraps smaller than this are not laid, m2. */
const SCRAP = 1e-4;

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
  const { flowMeshId } = (zone ?? job).laminate;
  return (
    flowMeshId !== null && (job.meshAreas.length === 0 || job.meshAreas.some((area) => isInside(area, at)))
  );
}

/** Cuts the flow mesh away round a line, by a gap in m. */
export const endMeshShort =
  (line: Pick<JobLine, 'points'>, gap: number, seed: string = newId()): Edit =>
  (job) =>
    onLayout(({ meshAreas }) => ({ meshAreas: areasShortOf(job, meshAreas, line, gap, seed) }))(job);

/** What is left of the mesh areas, or of mesh on the whole part where there are none. */
export function areasShortOf(
  { part }: Pick<Job, 'part'>,
  meshAreas: readonly JobMeshArea[],
  { points }: Pick<JobLine, 'points'>,
  gap: number,
  seed: string,
): JobMeshArea[] {
  const nextId = idsFrom(seed);
  const lain: Region = meshAreas.length > 0 ? meshAreas : [partPatch(part)];
  const left = subtract(lain, strip(points, gap)).filter((patch) => regionArea([patch]) > SCRAP);
  const plain = (ring: readonly Point[]) => straightenedRing(polygonOf(ring), TOLERANCE).map(roundPoint);
  return left.map(({ outline, holes }, i) => ({
    id: nextId(),
    name: left.length === 1 ? 'Mesh' : `Mesh ${i + 1}`,
    outline: plain(outline),
    holes: holes.map(plain),
  }));
}
