import { z } from 'zod';
import { quantity } from './quantity.ts';

const id = z.string().regex(/^[a-z0-9][a-z0-9-]{0,59}$/, 'use small letters, digits and hyphens');
const name = z.string().trim().min(1, 'give it a name').max(80);
const source = z.string().max(200).default('');
const entry = { id, name, source };
const fraction = quantity('fraction', { above: 0, below: 1 });

const exponent = z.number().min(0).max(0.5);
const permeability = quantity('permeability', { above: 1e-18, below: 1e-5 });
const measuredPoint = z.strictObject({
  fraction,
  along: permeability,
  across: permeability,
  through: permeability.nullable().optional(),
});

const fabricSchema = z.strictObject({
  ...entry,
  kind: z.literal('fabric'),
  arealWeight: quantity('arealWeight', { above: 0, below: 20 }),
  fibreDensity: quantity('density', { above: 100, below: 10_000 }),
  /** Pressed dry; wet and unloading where they were measured. */
  compaction: z.strictObject({
    fractionAt100kPa: fraction,
    exponent,
    wet: z.strictObject({ fractionAt100kPa: fraction, exponent }).nullable().optional(),
    unloadingExponent: exponent.nullable().optional(),
  }),
  /** One measured point, a table of them, or aligned fibres by Gebart. */
  permeability: z.union([
    measuredPoint,
    z.strictObject({ table: z.array(measuredPoint).min(1, 'enter at least one measured point').max(100) }),
    z.strictObject({
      fibres: z.strictObject({
        fibreRadius: quantity('thickness', { above: 1e-6, below: 1e-3 }),
        packing: z.enum(['quadratic', 'hexagonal']),
      }),
    }),
  ]),
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
  holes: z
    .strictObject({
      diameter: quantity('thickness', { above: 1e-4, below: 0.05 }),
      spacing: quantity('thickness', { above: 1e-3, below: 1 }),
    })
    .nullable()
    .optional(),
});

const peelPlySchema = z.strictObject({
  ...entry,
  kind: z.literal('peelPly'),
  resinUptake: quantity('thickness', { atLeast: 0, below: 0.01 }),
});

const temperature = quantity('temperature', { above: 233, below: 473 });

const duration = quantity('duration', { above: 0, below: 1e7 });
const viscosity = quantity('viscosity', { above: 0, below: 1e6 });
const energy = z.number().min(0).max(500_000);
const constant = z.number().min(0).max(1e20);

export const viscosityCurveSchema = z.strictObject({
  temperature,
  points: z
    .array(z.strictObject({ time: quantity('duration', { atLeast: 0, below: 1e7 }), viscosity }))
    .min(2, 'a viscosity curve needs two points')
    .max(2000),
});

const gelTableSchema = z.strictObject({
  catalyst: z.array(z.number().min(0.01).max(20)).min(1).max(20),
  temperature: z.array(temperature).min(1).max(20),
  /** One row a catalyst level, one column a temperature. */
  time: z.array(z.array(duration).min(1).max(20)).min(1).max(20),
  inhibitorFactor: z.number().min(0.2).max(20).optional(),
});

const kineticsSchema = z.strictObject({
  A1: constant,
  E1: energy,
  A2: constant,
  E2: energy,
  m: z.number().min(0).max(5),
  n: z.number().min(0).max(5),
  gelConversion: fraction,
  viscosityA: z.number().gt(0).max(1e6),
  viscosityE: energy,
  B: z.number().min(-10).max(50),
  C: z.number().min(-50).max(50),
});

const resinSchema = z.strictObject({
  ...entry,
  kind: z.literal('resin'),
  density: quantity('density', { above: 500, below: 3000 }),
  viscosityPoints: z
    .array(z.strictObject({ temperature, viscosity: quantity('viscosity', { above: 0, below: 1000 }) }))
    .max(50),
  gelPoints: z
    .array(z.strictObject({ temperature, time: quantity('duration', { above: 0, below: 1e6 }) }))
    .max(50),
  gelViscosityRatio: z.number().min(1.5).max(1e6).nullable(),
  hardenerParts: z.number().min(0).max(400),
  viscosityCurve: viscosityCurveSchema.nullable().optional(),
  gelTable: gelTableSchema.nullable().optional(),
  /** Kamal-Sourour cure with Castro-Macosko viscosity; SI (1/s, J/mol, Pa s). */
  kinetics: kineticsSchema.nullable().optional(),
  /** J/kg from mix to gel. */
  heatToGel: z.number().min(1000).max(2e6).nullable().optional(),
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
