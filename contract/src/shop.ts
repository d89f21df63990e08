import { quantityNames, quantityOf, type QuantityName } from '@wick/core/units/quantities';
import { z } from 'zod';
import { quantity } from './quantity.ts';

const share = quantity('fraction', { atLeast: 0, atMost: 1 });

/** Common practice, no source. */
const usualJudging = {
  comfortableChance: 0.95,
  tightChance: 0.8,
  comfortableTime: 0.5,
  tightTime: 0.8,
  usableViscosity: 0.8,
  usableGrowth: 3,
  shutInArea: 2e-4,
};

const probability = z.number().gte(0).lte(1);
/** What a workshop has changed of how causes are told apart: how often each is the one, and how likely it makes an answer. */
const causeEditsSchema = z.strictObject({
  priors: z.record(z.string().max(40), probability),
  /** By question and cause, each answer's. */
  likelihoods: z.record(z.string().max(80), z.record(z.string().max(40), probability)),
});
export type CauseEdits = z.infer<typeof causeEditsSchema>;
export const noCauseEdits: CauseEdits = { priors: {}, likelihoods: {} };

/** Choices of the workshop: where it stands and in which units it reads. */
export const shopSchema = z.strictObject({
  name: z.string().trim().min(1, 'give the workshop a name').max(80),
  altitude: quantity('length', { atLeast: -500, atMost: 6000 }),
  /** Measured ambient pressure; null takes the standard atmosphere at the altitude. */
  ambientPressure: quantity('absolutePressure', { above: 40_000, below: 110_000 }).nullable(),
  temperature: quantity('temperature', { above: 253, below: 333 }),
  /** At the start of the day and in the afternoon; null where nobody has said. */
  morningTemperature: quantity('temperature', { above: 253, below: 333 }).nullable().default(null),
  afternoonTemperature: quantity('temperature', { above: 253, below: 333 }).nullable().default(null),
  /** By what a run is judged. */
  judging: z
    .strictObject({
      comfortableChance: share,
      tightChance: share,
      comfortableTime: share,
      tightTime: share,
      usableViscosity: quantity('viscosity', { above: 0, below: 1000 }),
      usableGrowth: quantity('factor', { above: 1, atMost: 100 }),
      shutInArea: quantity('area', { atLeast: 0, atMost: 100 }),
    })
    .refine(({ comfortableChance, tightChance }) => comfortableChance >= tightChance, {
      message: 'a comfortable chance cannot be below a tight one',
      path: ['comfortableChance'],
    })
    .refine(({ comfortableTime, tightTime }) => comfortableTime <= tightTime, {
      message: 'a comfortable share of the usable time cannot be above a tight one',
      path: ['comfortableTime'],
    })
    .default(usualJudging),
  causes: causeEditsSchema.default(noCauseEdits),
  units: z
    .partialRecord(z.enum(quantityNames), z.string())
    .refine(
      (units) =>
        Object.entries(units).every(([name, symbol]) =>
          quantityOf(name as QuantityName).units.some((unit) => unit.symbol === symbol),
        ),
      { message: 'a unit here is not one of its quantity' },
    ),
});

export type Shop = z.infer<typeof shopSchema>;

export const usualShop: Shop = {
  name: 'My workshop',
  altitude: 0,
  ambientPressure: null,
  temperature: 293.15,
  morningTemperature: null,
  afternoonTemperature: null,
  units: {},
  judging: usualJudging,
  causes: noCauseEdits,
};
