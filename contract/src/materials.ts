import { z } from 'zod';
import { entry, fraction } from './material/entry.ts';
import { resinSchema } from './material/resin.ts';
import { quantity } from './quantity.ts';

/** Parts it serves before it is thrown away; null for one. */
const uses = z.number().int().min(1).max(1000).nullable().optional();
const width = quantity('length', { above: 0.001, below: 20 });
/** Sold on a roll or in sheets; null or none where nobody has said. */
const roll = {
  rollWidth: width.nullable().optional(),
  rollLength: quantity('length', { above: 0.01, below: 10_000 }).nullable().optional(),
};

const exponent = quantity('number', { atLeast: 0, atMost: 0.5 });
const permeability = quantity('permeability', { above: 1e-18, below: 1e-5 });
const measuredPoint = z.strictObject({
  fraction,
  along: permeability,
  across: permeability,
  through: permeability.nullable().optional(),
});

const maxTemperature = quantity('temperature', { above: 233, below: 873 }).nullable().optional();
const sheetWeight = quantity('arealWeight', { above: 0, below: 20 }).nullable().optional();

const fabricSchema = z.strictObject({
  ...entry,
  kind: z.literal('fabric'),
  arealWeight: quantity('arealWeight', { above: 0, below: 20 }),
  fibreDensity: quantity('density', { above: 100, below: 10_000 }),
  ...roll,
  /** Directions its fibres run in, from its own 0; none for a mat; null where nobody has said. */
  directions: z
    .array(quantity('angle', { atLeast: -7, below: 7 }))
    .max(8)
    .nullable()
    .optional(),
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

/** Holes in a square pattern, their size and distance above these, m. */
const holes = (smallest: number, nearest: number) =>
  z
    .strictObject({
      diameter: quantity('thickness', { above: smallest, below: 0.05 }),
      spacing: quantity('thickness', { above: nearest, below: 1 }),
    })
    .nullable()
    .optional();

const flowMeshSchema = z.strictObject({
  ...entry,
  kind: z.literal('flowMesh'),
  thickness: quantity('thickness', { above: 0, below: 0.05 }),
  porosity: fraction,
  permeability: quantity('permeability', { above: 1e-15, below: 1e-5 }),
  /** A fine knit keeps thin resin in check, an open one lets thick resin through. */
  arealWeight: sheetWeight,
  maxTemperature,
  uses,
  ...roll,
});

const coreSchema = z.strictObject({
  ...entry,
  kind: z.literal('core'),
  thickness: quantity('thickness', { above: 0, below: 0.5 }),
  density: quantity('density', { above: 5, below: 3000 }),
  /** As measured; null works it out from holes and slits. */
  resinUptake: quantity('thickness', { atLeast: 0, below: 0.05 }).nullable(),
  holes: holes(1e-4, 1e-3),
  /** Saw cuts both ways; depth as a share of the thickness. */
  slits: z
    .strictObject({
      width: quantity('thickness', { above: 1e-5, below: 0.05 }),
      spacing: quantity('thickness', { above: 1e-3, below: 1 }),
      depth: fraction.or(z.literal(1)),
    })
    .nullable()
    .optional(),
  /** Open cells fill with resin: such a core is bonded, not infused. */
  cells: z.enum(['open', 'closed']).nullable().optional(),
  sheetLength: width.nullable().optional(),
  sheetWidth: width.nullable().optional(),
});

const peelPlySchema = z.strictObject({
  ...entry,
  kind: z.literal('peelPly'),
  resinUptake: quantity('thickness', { atLeast: 0, below: 0.01 }),
  /** Under vacuum, and how it lets resin through; null takes what is usual. */
  thickness: quantity('thickness', { above: 1e-6, below: 0.01 }).nullable().optional(),
  through: quantity('permeability', { above: 1e-16, below: 1e-6 }).nullable().optional(),
  /** Coated: it comes off easily, and leaves a face that has to be abraded before it is bonded. */
  finish: z.enum(['coated', 'uncoated']).nullable().optional(),
  arealWeight: sheetWeight,
  maxTemperature,
  ...roll,
});

const bore = quantity('length', { above: 0.0005, below: 0.2 });

const filmSchema = z.strictObject({
  ...entry,
  kind: z.literal('film'),
  use: z.enum(['bag', 'release', 'perforated']),
  thickness: quantity('thickness', { above: 1e-6, below: 0.01 }),
  /** Of a perforated film, in a square pattern; null takes what is usual. */
  holes: holes(1e-5, 1e-4),
  /** At yield, Pa, and strain at break: how tightly a bag spans a corner. */
  strength: quantity('stress', { above: 1e5, below: 1e9 }).nullable().optional(),
  elongation: quantity('fraction', { above: 0, atMost: 10 }).nullable().optional(),
  arealWeight: sheetWeight,
  maxTemperature,
  uses,
  ...roll,
});

const bleederSchema = z.strictObject({
  ...entry,
  kind: z.literal('bleeder'),
  arealWeight: quantity('arealWeight', { above: 0, below: 20 }),
  /** Resin it holds when soaked, pressed by the bag. */
  resinUptake: quantity('thickness', { atLeast: 0, below: 0.05 }),
  use: z.enum(['bleeder', 'breather']).nullable().optional(),
  /** Pressed by the bag. */
  thickness: quantity('thickness', { above: 1e-6, below: 0.05 }).nullable().optional(),
  maxTemperature,
  uses,
  ...roll,
});

const lineSchema = z.strictObject({
  ...entry,
  kind: z.literal('line'),
  /** A loop stands off the face and prints less. */
  form: z.enum(['spiral', 'profile', 'tube', 'loop']),
  bore,
  maxTemperature,
  uses,
  coilLength: quantity('length', { above: 0.01, below: 10_000 }).nullable().optional(),
});

const hoseSchema = z.strictObject({
  ...entry,
  kind: z.literal('hose'),
  bore,
  wall: quantity('thickness', { above: 1e-5, below: 0.05 }).nullable().optional(),
  maxTemperature,
  coilLength: quantity('length', { above: 0.01, below: 10_000 }).nullable().optional(),
});

const tapeSchema = z.strictObject({
  ...entry,
  kind: z.literal('tape'),
  tapeWidth: quantity('length', { above: 0.001, below: 0.5 }),
  thickness: quantity('thickness', { above: 1e-5, below: 0.05 }),
  use: z.enum(['sealant', 'double', 'flash']).nullable().optional(),
  maxTemperature,
  rollLength: quantity('length', { above: 0.01, below: 10_000 }).nullable().optional(),
});

const pumpSchema = z.strictObject({
  ...entry,
  kind: z.literal('pump'),
  ultimatePressure: quantity('absolutePressure', { atLeast: 0, below: 110_000 }),
  /** Free air, m3/s. */
  flowRate: quantity('flowRate', { above: 0, below: 10 }),
});

const potSchema = z.strictObject({
  ...entry,
  kind: z.literal('pot'),
  use: z.enum(['mixing', 'feed', 'catch']),
  capacity: quantity('volume', { above: 0, below: 10 }),
});

/** What hoses and lines are joined with. */
const fittingSchema = z.strictObject({
  ...entry,
  kind: z.literal('fitting'),
  use: z.enum(['through', 'tee', 'joint', 'clamp', 'valve']),
  maxTemperature,
  uses,
});

/** Everything else that has to lie ready. */
const sundrySchema = z.strictObject({
  ...entry,
  kind: z.literal('sundry'),
  use: z.enum(['gloves', 'cup', 'stick', 'brush', 'other']),
  uses,
});

/** A library entry: one of the kinds the stages draw on. */
export const materialSchema = z.discriminatedUnion('kind', [
  fabricSchema,
  flowMeshSchema,
  coreSchema,
  filmSchema,
  peelPlySchema,
  bleederSchema,
  lineSchema,
  hoseSchema,
  tapeSchema,
  resinSchema,
  pumpSchema,
  potSchema,
  fittingSchema,
  sundrySchema,
]);

export type Material = z.infer<typeof materialSchema>;
export type MaterialKind = Material['kind'];
export type MaterialOf<K extends MaterialKind> = Extract<Material, { kind: K }>;
