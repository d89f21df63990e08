import { polygonOf } from '@wick/core/geometry/arcs';
import { regionArea, strip, subtract, type Region } from '@wick/core/geometry/overlay';
import { contains, type Point } from '@wick/core/geometry/polygon';
import { straightenedRing } from '@wick/core/geometry/along';
import { isInside } from '@wick/core/layouts/frame';
import { partShapeOf } from './fit-layout.ts';
import type { Job, JobLine } from './job.ts';
import { partPatch } from './ply-book.ts';

/** Usual distance between the end of the mesh and a vent, m: common practice, no source. */
export const MESH_GAP = 0.05;
/** Mesh so near beside a place touches it, m. */
const BESIDE = 0.004;
/** Nobody cuts mesh more exactly, m. */
const TOLERANCE = 2e-3;
/** Scraps smaller than this are not laid, m2. */
const SCRAP = 1e-4;

/** Flow mesh lies at a place of the part or right beside it. */
export function meshAround(job: Job, at: Point): boolean {
  const part = partShapeOf(job);
  const beside = Array.from({ length: 8 }, (_, k) => ({
    x: at.x + BESIDE * Math.cos((k * Math.PI) / 4),
    y: at.y + BESIDE * Math.sin((k * Math.PI) / 4),
  }));
  return [at, ...beside].some((p) => isInside(part, p) && hasMesh(job, p));
}

function hasMesh(job: Job, at: Point): boolean {
  const zone = job.zones.findLast(({ outline }) => contains(polygonOf(outline), at));
  const { flowMeshId } = (zone ?? job).laminate;
  return (
    flowMeshId !== null && (job.meshAreas.length === 0 || job.meshAreas.some((area) => isInside(area, at)))
  );
}

/** The job with its flow mesh cut away round a line, by a gap in m. */
export function endMeshShort(job: Job, { points }: Pick<JobLine, 'points'>, gap: number): Job {
  const lain: Region = job.meshAreas.length > 0 ? job.meshAreas : [partPatch(job.part)];
  const left = subtract(lain, strip(points, gap)).filter((patch) => regionArea([patch]) > SCRAP);
  const plain = (ring: readonly Point[]) =>
    straightenedRing(polygonOf(ring), TOLERANCE).map(({ x, y }) => ({
      x: Number(x.toFixed(4)),
      y: Number(y.toFixed(4)),
    }));
  return {
    ...job,
    meshAreas: left.map(({ outline, holes }, i) => ({
      id: `mesh-${i + 1}`,
      name: left.length === 1 ? 'Mesh' : `Mesh ${i + 1}`,
      outline: plain(outline),
      holes: holes.map(plain),
    })),
  };
}
