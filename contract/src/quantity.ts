import type { QuantityName } from '@wick/core/units/quantities';
import { z } from 'zod';
import type { NumberLimits } from './field.ts';

/** A finite SI number of a named quantity; the name travels into the published JSON Schema as its unit. */
export function quantity(
  name: QuantityName,
  { above, atLeast, below, atMost }: NumberLimits = {},
): z.ZodNumber {
  let schema = z.number();
  if (above !== undefined) schema = schema.gt(above);
  if (atLeast !== undefined) schema = schema.gte(atLeast);
  if (below !== undefined) schema = schema.lt(below);
  if (atMost !== undefined) schema = schema.lte(atMost);
  return schema.meta({ quantity: name, description: `${name}, coherent SI` });
}
