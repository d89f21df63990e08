import { z } from 'zod';
import { quantity } from '../quantity.ts';
import { entry, fraction, id } from './entry.ts';

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

/** From when and until when something is done, since the mix, at a temperature. */
const cureWindow = z
  .strictObject({ opens: duration, closes: duration, temperature })
  .refine(({ opens, closes }) => opens < closes, 'a window opens before it closes');

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

export const resinSchema = z.strictObject({
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
  /** J/kg from mix to gel, and of the whole cure. */
  heatToGel: z.number().min(1000).max(2e6).nullable().optional(),
  cureHeat: z.number().min(1000).max(2e6).nullable().optional(),
  /** Glass transition of the fresh mix and of the fully cured resin, and how it bends between them. */
  glass: z
    .strictObject({
      fresh: quantity('temperature', { above: 150, below: 350 }),
      full: quantity('temperature', { above: 250, below: 573 }),
      lambda: z.number().gt(0.05).max(1),
    })
    .refine(({ fresh, full }) => fresh < full, 'a glass transition rises with cure')
    .nullable()
    .optional(),
  /** From when it may leave the mould, and when a further coat or a bond sticks by itself, since the mix, at a temperature. */
  demould: z.strictObject({ opens: duration, temperature }).nullable().optional(),
  recoat: cureWindow.nullable().optional(),
  bond: cureWindow.nullable().optional(),
});
