import type { QuantityName } from '@wick/core/units/quantities';
import { z } from 'zod';

interface Limits {
  readonly above?: number;
  readonly atLeast?: number;
  readonly below?: number;
}

/** A finite SI number of a named quantity; the name travels into the published JSON Schema as its unit. */
export function quantity(name: QuantityName, { above, atLeast, below }: Limits = {}): z.ZodNumber {
  let schema = z.number();
  if (above !== undefined) schema = schema.gt(above);
  if (atLeast !== undefined) schema = schema.gte(atLeast);
  if (below !== undefined) schema = schema.lt(below);
  return schema.meta({ quantity: name, description: `${name}, coherent SI` });
}
