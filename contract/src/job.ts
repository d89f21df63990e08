import { z } from 'zod';
import { materialSchema } from './materials.ts';
import { quantity } from './quantity.ts';

export const JOB_FORMAT = 'vivid-wick-job';
export const JOB_VERSION = 1;

const itemId = z.string().regex(/^[A-Za-z0-9_-]{1,40}$/, 'an id is up to 40 letters, digits, - or _');
const coordinate = z
  .number()
  .min(-1000)
  .max(1000)
  .meta({ quantity: 'length', description: 'length, coherent SI' });
const point = z.strictObject({ x: coordinate, y: coordinate });

const lineSchema = z.strictObject({
  id: itemId,
  kind: z.enum(['feed', 'vent']),
  name: z.string().trim().min(1).max(40),
  points: z.array(point).min(1, 'a line needs a point').max(200),
  bore: quantity('length', { above: 0.0005, below: 0.2 }),
  opens: z.enum(['atStart', 'whenReached']),
  closesWhenReached: z.boolean(),
});

/** The plan of a job as it is stored and exported. A null is "unknown": the forecast assumes a value and says so. */
export const jobSchema = z.strictObject({
  format: z.literal(JOB_FORMAT),
  version: z.literal(JOB_VERSION),
  name: z.string().trim().min(1, 'give the job a name').max(80),
  process: z.enum(['infusion', 'wetLayup', 'closedMould', 'bonding']),
  part: z.strictObject({
    outline: z.array(point).min(3, 'an outline needs three corners').max(2000),
    holes: z.array(z.array(point).min(3, 'a hole needs three corners').max(500)).max(50),
  }),
  laminate: z.strictObject({
    plies: z
      .array(
        z.strictObject({
          id: itemId,
          materialId: z.string(),
          angle: quantity('angle', { atLeast: -7, below: 7 }),
        }),
      )
      .max(500),
    coreId: z.string().nullable(),
    flowMeshId: z.string().nullable(),
    peelPlyId: z.string().nullable(),
    fibreVolumeFraction: quantity('fraction', { above: 0, below: 0.8 }).nullable(),
  }),
  lines: z.array(lineSchema).max(100),
  resin: z.strictObject({
    materialId: z.string().nullable(),
    temperature: quantity('temperature', { above: 233, below: 473 }).nullable(),
    mixDuration: quantity('duration', { atLeast: 0, below: 1e5 }).nullable(),
    degasDuration: quantity('duration', { atLeast: 0, below: 1e5 }).nullable(),
    hoseFillDuration: quantity('duration', { atLeast: 0, below: 1e5 }).nullable(),
    hoseLength: quantity('length', { atLeast: 0, below: 100 }).nullable(),
  }),
  vacuum: z.strictObject({
    ventPressure: quantity('absolutePressure', { atLeast: 0, below: 110_000 }).nullable(),
  }),
  /** The values the job was computed with; ids used above refer to these. */
  materials: z.array(materialSchema).max(500),
});

export type Job = z.infer<typeof jobSchema>;
export type JobLine = Job['lines'][number];

/** A job with an empty laminate and no lines on a plain rectangle. */
export function emptyJob(name: string): Job {
  return {
    format: JOB_FORMAT,
    version: JOB_VERSION,
    name,
    process: 'infusion',
    part: {
      outline: [
        { x: 0, y: 0 },
        { x: 1.2, y: 0 },
        { x: 1.2, y: 0.8 },
        { x: 0, y: 0.8 },
      ],
      holes: [],
    },
    laminate: { plies: [], coreId: null, flowMeshId: null, peelPlyId: null, fibreVolumeFraction: null },
    lines: [],
    resin: {
      materialId: null,
      temperature: null,
      mixDuration: null,
      degasDuration: null,
      hoseFillDuration: null,
      hoseLength: null,
    },
    vacuum: { ventPressure: null },
    materials: [],
  };
}
