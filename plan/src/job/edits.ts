import type { Job } from '@wick/contract/job/job';
import type { Material } from '@wick/contract/materials';
import type { Point } from '@wick/core/geometry/polygon';
import { keepUsed } from './materials.ts';

/** A pure edit of a job document: it returns a new one, and the same for the same every time. New ids are its parameters. */
export type Edit = (job: Job) => Job;

export const withName =
  (name: string): Edit =>
  (job) => ({ ...job, name });

export const withPart =
  (part: Partial<Job['part']>): Edit =>
  (job) => ({ ...job, part: { ...job.part, ...part } });

export const withResin =
  (resin: Partial<Job['resin']>): Edit =>
  (job) => ({ ...job, resin: { ...job.resin, ...resin } });

export const withResinSystem =
  (resin: Material): Edit =>
  (job) =>
    keepUsed({ ...job, resin: { ...job.resin, materialId: resin.id } }, [resin]);

/** What holds and guards the vacuum; materials from the library where the job has them not yet. */
export const withVacuum =
  (vacuum: Partial<Job['vacuum']>, library: readonly Material[] = []): Edit =>
  (job) =>
    keepUsed({ ...job, vacuum: { ...job.vacuum, ...vacuum } }, library);

export const withForecast =
  (forecast: Partial<Job['forecast']>): Edit =>
  (job) => ({ ...job, forecast: { ...job.forecast, ...forecast } });

export const withDoubt =
  (doubt: Partial<Job['doubt']>): Edit =>
  (job) => ({ ...job, doubt: { ...job.doubt, ...doubt } });

/** Changes one value that is the job's own, by its path: "resin.hoseLength". */
export const withValueAt =
  (path: string, value: number | null): Edit =>
  (job) =>
    changed(job, path.split('.'), value) as Job;

function changed(branch: unknown, [name, ...rest]: string[], value: unknown): unknown {
  if (name === undefined) return value;
  const record = branch as Record<string, unknown>;
  const after = changed(record[name], rest, value);
  return after === record[name] ? record : { ...record, [name]: after };
}

/** Changes the job's own copy of a material. */
export const editMaterial =
  (material: Material): Edit =>
  (job) => ({ ...job, materials: job.materials.map((old) => (old.id === material.id ? material : old)) });

/** Positions are kept to a tenth of a millimetre. */
export const roundPoint = ({ x, y }: Point): Point => ({
  x: Math.round(x * 1e4) / 1e4,
  y: Math.round(y * 1e4) / 1e4,
});
export const shift = (p: Point, by: Point): Point => roundPoint({ x: p.x + by.x, y: p.y + by.y });
