import type { Point } from '@wick/core/geometry/polygon';
import type { Job, JobLine } from '@wick/contract/job';
import type { Material } from '@wick/contract/materials';

/** Pure edits of a job document; each returns a new one and keeps the materials list to what is used. */
export type Edit = (job: Job) => Job;

export const withPart =
  (part: Partial<Job['part']>): Edit =>
  (job) => ({ ...job, part: { ...job.part, ...part } });

export const withResin =
  (resin: Partial<Job['resin']>): Edit =>
  (job) => ({ ...job, resin: { ...job.resin, ...resin } });

export const moveCorner =
  (index: number, to: Point): Edit =>
  (job) =>
    withPart({ outline: job.part.outline.map((corner, i) => (i === index ? roundPoint(to) : corner)) })(job);

/** Puts a corner in the middle of the edge that starts at index. */
export const splitEdge =
  (index: number): Edit =>
  (job) => {
    const { outline } = job.part;
    const [a, b] = [outline[index]!, outline[(index + 1) % outline.length]!];
    const middle = roundPoint({ x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 });
    return withPart({ outline: [...outline.slice(0, index + 1), middle, ...outline.slice(index + 1)] })(job);
  };

/** A part keeps three corners at least. */
export const removeCorner =
  (index: number): Edit =>
  (job) =>
    job.part.outline.length > 3
      ? withPart({ outline: job.part.outline.filter((_, i) => i !== index) })(job)
      : job;

export const moveHole =
  (index: number, by: Point): Edit =>
  (job) =>
    withPart({
      holes: job.part.holes.map((hole, i) => (i === index ? hole.map((p) => shift(p, by)) : hole)),
    })(job);

export const updateLine =
  (id: string, changes: Partial<JobLine>): Edit =>
  (job) => ({ ...job, lines: job.lines.map((line) => (line.id === id ? { ...line, ...changes } : line)) });

export const moveLine =
  (id: string, by: Point): Edit =>
  (job) => ({
    ...job,
    lines: job.lines.map((line) =>
      line.id === id ? { ...line, points: line.points.map((p) => shift(p, by)) } : line,
    ),
  });

export const moveLinePoint =
  (id: string, index: number, to: Point): Edit =>
  (job) => ({
    ...job,
    lines: job.lines.map((line) =>
      line.id === id
        ? { ...line, points: line.points.map((p, i) => (i === index ? roundPoint(to) : p)) }
        : line,
    ),
  });

export const removeLine =
  (id: string): Edit =>
  (job) => ({ ...job, lines: job.lines.filter((line) => line.id !== id) });

/** A new line named after its kind and number: "Feed 2". The first feed opens at the start, further ones when the front has passed them. */
export function newLine(job: Job, kind: JobLine['kind'], points: readonly Point[]): JobLine {
  const word = kind === 'feed' ? 'Feed' : 'Vent';
  let number = 1;
  while (job.lines.some((line) => line.id === `${kind}-${number}` || line.name === `${word} ${number}`))
    number += 1;
  const isFirstFeed = kind === 'feed' && !job.lines.some((line) => line.kind === 'feed');
  return {
    id: `${kind}-${number}`,
    kind,
    name: `${word} ${number}`,
    points: points.map(roundPoint),
    bore: 0.012,
    opens: isFirstFeed || kind === 'vent' ? 'atStart' : 'whenReached',
    closesWhenReached: false,
  };
}

export const withPly =
  (fabric: Material, angle: number): Edit =>
  (job) => {
    let number = job.laminate.plies.length + 1;
    while (job.laminate.plies.some((ply) => ply.id === `ply-${number}`)) number += 1;
    const plies = [...job.laminate.plies, { id: `ply-${number}`, materialId: fabric.id, angle }];
    return keepUsed({ ...job, laminate: { ...job.laminate, plies } }, [fabric]);
  };

export const withPlies =
  (plies: Job['laminate']['plies']): Edit =>
  (job) =>
    keepUsed({ ...job, laminate: { ...job.laminate, plies } }, []);

/** Changes the laminate, bringing in the materials it names. */
export const withLaminate =
  (laminate: Partial<Job['laminate']>, materials: readonly Material[]): Edit =>
  (job) =>
    keepUsed({ ...job, laminate: { ...job.laminate, ...laminate } }, materials);

export const withResinSystem =
  (resin: Material): Edit =>
  (job) =>
    keepUsed({ ...job, resin: { ...job.resin, materialId: resin.id } }, [resin]);

/** The job's own copies come first: a job keeps the values it was computed with. */
function keepUsed(job: Job, added: readonly Material[]): Job {
  const { laminate, resin } = job;
  const used = new Set([
    ...laminate.plies.map((ply) => ply.materialId),
    laminate.coreId,
    laminate.flowMeshId,
    laminate.peelPlyId,
    resin.materialId,
  ]);
  const own = job.materials.filter((material) => used.has(material.id));
  const fresh = added.filter(
    (material) => used.has(material.id) && !own.some((known) => known.id === material.id),
  );
  return { ...job, materials: [...own, ...fresh] };
}

/** Positions are kept to a tenth of a millimetre. */
const roundPoint = ({ x, y }: Point): Point => ({
  x: Math.round(x * 1e4) / 1e4,
  y: Math.round(y * 1e4) / 1e4,
});
const shift = (p: Point, by: Point): Point => roundPoint({ x: p.x + by.x, y: p.y + by.y });
