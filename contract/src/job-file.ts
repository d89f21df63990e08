import { ModelError } from '@wick/core/model-error';
import { polygonOf } from '@wick/core/geometry/arcs';
import { requireSimplePolygon } from '@wick/core/geometry/polygon';
import type { z } from 'zod';
import type { ErrorCode } from './errors.ts';
import { migrateJob } from './job-migrations.ts';
import { booksOf, isThrough } from './ply-book.ts';
import { JOB_FORMAT, JOB_VERSION, jobSchema, type Job, type JobLaminate, type JobVariant } from './job.ts';

export type Read<T> =
  | { readonly ok: true; readonly value: T }
  | { readonly ok: false; readonly code: ErrorCode; readonly message: string };

/**
 * Reads the text of a job file. Every refusal is one sentence that says what is wrong, where, and what to do.
 */
export function readJobFile(text: string): Read<Job> {
  const plain = text.replace(/^\uFEFF/, '');
  if (plain.trim() === '') return refuse('NOT_JSON', 'The file is empty. Export the job again.');
  let raw: unknown;
  try {
    raw = JSON.parse(plain);
  } catch {
    return refuse(
      'NOT_JSON',
      'The file is not a job file: it is not complete JSON. It may have been cut off; export the job again.',
    );
  }
  return readJob(raw);
}

/** Checks a parsed job document: marker, version, shape, then what the shape cannot say. */
export function readJob(raw: unknown): Read<Job> {
  if (typeof raw !== 'object' || raw === null || !('format' in raw) || raw.format !== JOB_FORMAT)
    return refuse(
      'BAD_JOB',
      `The file is JSON, but not a job: its "format" should read "${JOB_FORMAT}". Choose a file that was exported as a job.`,
    );
  const version = 'version' in raw ? raw.version : undefined;
  if (typeof version === 'number' && version > JOB_VERSION)
    return refuse(
      'NEWER_VERSION',
      `The file was written by a newer version (${version}; this one reads up to ${JOB_VERSION}). Update this program, then import it again.`,
    );
  const parsed = jobSchema.safeParse(migrateJob({ ...raw }));
  if (!parsed.success) return refuse('BAD_JOB', sentenceOf(parsed.error));
  const fault = faultOf(parsed.data);
  return fault ? refuse('BAD_JOB', fault) : { ok: true, value: parsed.data };
}

function refuse(code: ErrorCode, message: string): { ok: false; code: ErrorCode; message: string } {
  return { ok: false, code, message };
}

/** First issue of a failed parse as a sentence with its place. */
export function sentenceOf(error: z.ZodError): string {
  const [issue] = error.issues;
  if (!issue) return 'Something in it is wrong.';
  const place = issue.path
    .map((part) => (typeof part === 'number' ? `${part + 1}` : String(part)))
    .join(' › ');
  const more = error.issues.length > 1 ? ` (and ${error.issues.length - 1} more)` : '';
  const keys =
    issue.code === 'unrecognized_keys' ? ` Remove ${issue.keys.map((key) => `"${key}"`).join(', ')}.` : '';
  return `${place === '' ? 'The document' : `At ${place}`}: ${lowerFirst(issue.message)}${more}.${keys} Correct it in the file and import it again.`;
}

function lowerFirst(text: string): string {
  return text.charAt(0).toLowerCase() + text.slice(1);
}

function faultOf(job: Job): string | null {
  const named = [
    ...job.lines,
    ...job.marks,
    ...job.tees,
    ...job.stations,
    ...job.meshAreas,
    ...job.zones,
    ...job.part.features,
  ];
  const zonePlies = job.zones.flatMap(({ laminate }) => laminate.plies);
  const plyIds = [...job.laminate.plies, ...zonePlies].flatMap((ply) => (isThrough(ply) ? [] : [ply.id]));
  const ids = [...named.map(({ id }) => id), ...plyIds];
  const twice = ids.find((id, index) => ids.indexOf(id) !== index);
  if (twice !== undefined)
    return `The id "${twice}" is used twice among plies, lines, marks, tees, pots, pumps, mesh areas, zones and features. Give each its own.`;
  for (const { name, laminate } of job.zones) {
    const through = laminate.plies.filter(isThrough).map((ply) => ply.through);
    const lost = through.find((id) => !job.laminate.plies.some((ply) => ply.id === id));
    if (lost !== undefined)
      return `In ${name} the base ply "${lost}" runs through, which the base laminate does not have. Take it out of the zone.`;
    const doubledPly = through.find((id, index) => through.indexOf(id) !== index);
    if (doubledPly !== undefined)
      return `In ${name} the base ply "${doubledPly}" runs through twice. Take one out.`;
  }
  const materialIds = job.materials.map((material) => material.id);
  const doubled = materialIds.find((id, index) => materialIds.indexOf(id) !== index);
  if (doubled !== undefined) return `The material "${doubled}" is listed twice. Remove one.`;
  const wanted: [string | null, string, string][] = [
    ...booksOf(job).flatMap(({ laminate, name, zoneId }) =>
      laminateWants(laminate, zoneId === null ? '' : ` of ${name}`),
    ),
    [job.resin.materialId, 'resin', 'The resin'],
    ...[job, ...job.variants].flatMap(({ lines }) =>
      lines.flatMap(({ name, stockId, hoseId }): [string | null, string, string][] => [
        [stockId, 'line', name],
        [hoseId, 'hose', `The hose of ${name}`],
      ]),
    ),
  ];
  for (const [id, kind, who] of wanted)
    if (id !== null && !job.materials.some((material) => material.id === id && material.kind === kind))
      return `${who} refers to "${id}", which is not among the file's materials. Add it there or choose another.`;
  const letters = [job.layout.letter, ...job.variants.map(({ letter }) => letter)];
  const taken = letters.find((letter, index) => letters.indexOf(letter) !== index);
  if (taken !== undefined) return `Two layouts are called ${taken}. Give each its own letter.`;
  const lost = [job, ...job.variants.map((variant) => layoutOf(job, variant))].map(danglingOf).find(Boolean);
  if (lost) return lost;
  try {
    requireSimplePolygon(polygonOf(job.part.outline), 'The outline');
    job.part.holes.forEach((hole, i) => requireSimplePolygon(polygonOf(hole), `Hole ${i + 1}`));
    job.zones.forEach((zone) => requireSimplePolygon(polygonOf(zone.outline), zone.name));
  } catch (error) {
    if (error instanceof ModelError) return error.message;
    throw error;
  }
  return null;
}

function laminateWants(laminate: JobLaminate, where: string): [string | null, string, string][] {
  return [
    ...laminate.plies.map((ply, i): [string, string, string] => [
      ply.materialId,
      'fabric',
      `Ply ${i + 1}${where}`,
    ]),
    [laminate.coreId, 'core', `The core${where}`],
    [laminate.flowMeshId, 'flowMesh', `The flow mesh${where}`],
    [laminate.peelPlyId, 'peelPly', `The peel ply${where}`],
  ];
}

/** The job as it would be with another of its layouts. */
const layoutOf = (job: Job, { lines, tees, stations, brakes }: JobVariant): Job => ({
  ...job,
  lines,
  tees,
  stations,
  zones: [...job.zones.filter(({ purpose }) => purpose !== 'brake'), ...brakes],
});

/** A line whose tee, or whose trigger's line, mark or zone, is not there. */
function danglingOf({ lines, marks, tees, stations, zones }: Job): string | null {
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
      if (when.kind === 'zoneFull' && !zones.some(({ id }) => id === when.zone))
        return `An action of ${name} waits for the zone "${when.zone}", which is not there. Choose another trigger.`;
    }
  }
  return null;
}
