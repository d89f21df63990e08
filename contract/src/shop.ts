import { quantityNames, quantityOf, type QuantityName } from '@wick/core/units/quantities';
import { z } from 'zod';
import { quantity } from './quantity.ts';

/** Choices of the workshop: where it stands and in which units it reads. */
export const shopSchema = z.strictObject({
  name: z.string().trim().min(1, 'give the workshop a name').max(80),
  altitude: quantity('length', { atLeast: -500, atMost: 6000 }),
  /** Measured ambient pressure; null takes the standard atmosphere at the altitude. */
  ambientPressure: quantity('absolutePressure', { above: 40_000, below: 110_000 }).nullable(),
  temperature: quantity('temperature', { above: 253, below: 333 }),
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
  units: {},
};
