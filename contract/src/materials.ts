import { z } from 'zod';
import { quantity } from './quantity.ts';

const id = z.string().regex(/^[a-z0-9][a-z0-9-]{0,59}$/, 'use small letters, digits and hyphens');
const name = z.string().trim().min(1, 'give it a name').max(80);
const source = z.string().max(200).default('');
const entry = { id, name, source };
const fraction = quantity('fraction', { above: 0, below: 1 });

const fabricSchema = z.strictObject({
  ...entry,
  kind: z.literal('fabric'),
  arealWeight: quantity('arealWeight', { above: 0, below: 20 }),
  fibreDensity: quantity('density', { above: 100, below: 10_000 }),
  compaction: z.strictObject({ fractionAt100kPa: fraction, exponent: z.number().min(0).max(0.5) }),
  permeability: z.strictObject({
    fraction,
    along: quantity('permeability', { above: 1e-15, below: 1e-6 }),
    across: quantity('permeability', { above: 1e-15, below: 1e-6 }),
  }),
});

const flowMeshSchema = z.strictObject({
  ...entry,
  kind: z.literal('flowMesh'),
  thickness: quantity('thickness', { above: 0, below: 0.05 }),
  porosity: fraction,
  permeability: quantity('permeability', { above: 1e-15, below: 1e-5 }),
});

const coreSchema = z.strictObject({
  ...entry,
  kind: z.literal('core'),
  thickness: quantity('thickness', { above: 0, below: 0.5 }),
  density: quantity('density', { above: 5, below: 3000 }),
  resinUptake: quantity('thickness', { atLeast: 0, below: 0.05 }),
});

const peelPlySchema = z.strictObject({
  ...entry,
  kind: z.literal('peelPly'),
  resinUptake: quantity('thickness', { atLeast: 0, below: 0.01 }),
});

const temperature = quantity('temperature', { above: 233, below: 473 });

const resinSchema = z.strictObject({
  ...entry,
  kind: z.literal('resin'),
  density: quantity('density', { above: 500, below: 3000 }),
  viscosityPoints: z
    .array(z.strictObject({ temperature, viscosity: quantity('viscosity', { above: 0, below: 1000 }) }))
    .min(1, 'enter at least one viscosity')
    .max(50),
  gelPoints: z
    .array(z.strictObject({ temperature, time: quantity('duration', { above: 0, below: 1e6 }) }))
    .min(1, 'enter at least one gel time')
    .max(50),
  gelViscosityRatio: z.number().min(1.5).max(1e6).nullable(),
  hardenerParts: z.number().min(0).max(400),
});

/** A library entry: one of the kinds the stages draw on. */
export const materialSchema = z.discriminatedUnion('kind', [
  fabricSchema,
  flowMeshSchema,
  coreSchema,
  peelPlySchema,
  resinSchema,
]);

export type Material = z.infer<typeof materialSchema>;
export type MaterialKind = Material['kind'];
export type MaterialOf<K extends MaterialKind> = Extract<Material, { kind: K }>;
