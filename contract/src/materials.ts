import { z } from 'zod';
import { quantity } from './quantity.ts';

const id = z.string().regex(/^[a-z0-9][a-z0-9-]{0,59}$/, 'use small letters, digits and hyphens');
const name = z.string().trim().min(1, 'give it a name').max(80);
const source = z.string().max(200).default('');
/** Where one value comes from and how far it may be off, as a share of it. */
const aboutValue = z.strictObject({
  source: z.string().max(200).optional(),
  doubt: quantity('fraction', { atLeast: 0, atMost: 10 }).optional(),
});
/** What is known about single values, by their path: "permeability.along". */
const MOST_ABOUT = 60;
const about = z
  .record(z.string().max(60), aboutValue)
  .refine((all) => Object.keys(all).length <= MOST_ABOUT, `at most ${MOST_ABOUT} values can be told about`)
  .optional();
/** In the workshop's money: a square metre of what comes on a roll or in sheets, a metre, a kilogram of resin, or a piece. */
const price = z.number().min(0).max(1e6).nullable().optional();
/** Parts it serves before it is thrown away; null for one. */
const uses = z.number().int().min(1).max(1000).nullable().optional();
/** On the shelf, in what it is priced by, and when to order; the library's alone. */
const counted = z.number().min(0).max(1e6).nullable().optional();
const stock = z.strictObject({ amount: counted, minimum: counted }).nullable().optional();
const entry = { id, name, source, about, price, stock };
const fraction = quantity('fraction', { above: 0, below: 1 });
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

const temperature = quantity('temperature', { above: 233, below: 473 });

const duration = quantity('duration', { above: 0, below: 1e7 });
const viscosity = quantity('viscosity', { above: 0, below: 1e6 });
const energy = z.number().min(0).max(500_000);
const constant = z.number().min(0).max(1e20);

const viscosityCurveSchema = z.strictObject({
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

const componentDensity = quantity('density', { above: 500, below: 3000 }).nullable().optional();

/** A container of one of the two components. */
const lotSchema = z.strictObject({
  id,
  part: z.enum(['resin', 'hardener']),
  /** As it stands on the label. */
  number: z.string().trim().min(1, 'a container has a batch number').max(40),
  expires: z.iso.date({ error: 'a date reads like 2026-11-27' }).nullable(),
  /** Of what is in it. */
  mass: quantity('mass', { above: 0, below: 2000 }).nullable(),
  /** Where it is kept; null for the shop. */
  storeTemperature: temperature.nullable(),
  /** What settles or crystallises in store is stirred up or rolled before it is used. */
  care: z.enum(['plain', 'stir', 'roll']),
});
export type Lot = z.infer<typeof lotSchema>;

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
  /** What the gel points are of: a pot of so many kg, 0 for a thin film, null where nobody has said. */
  gelMass: quantity('mass', { atLeast: 0, atMost: 100 }).nullable().optional(),
  gelViscosityRatio: z.number().min(1.5).max(1e6).nullable(),
  hardenerParts: z.number().min(0).max(400),
  /** The same by volume, and the densities of the two, where the sheet gives them. */
  hardenerVolumeParts: z.number().gt(0).max(400).nullable().optional(),
  resinDensity: componentDensity,
  hardenerDensity: componentDensity,
  /** How far hardener may be off, as shares of it, where the sheet says. */
  hardenerWindow: z
    .strictObject({
      below: quantity('fraction', { atLeast: 0, below: 1 }),
      above: quantity('fraction', { atLeast: 0, below: 1 }),
    })
    .nullable()
    .optional(),
  /** Containers on the shelf; the library's alone. */
  lots: z.array(lotSchema).max(50).optional(),
  /** Amines thicken from the start; radical cures of polyester and vinyl ester stay thin, then set. */
  chemistry: z.enum(['amine', 'radical']).nullable().optional(),
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
