import { z } from 'zod';

export const itemId = z.string().regex(/^[A-Za-z0-9_-]{1,40}$/, 'an id is up to 40 letters, digits, - or _');
export const coordinate = z
  .number()
  .min(-1000)
  .max(1000)
  .meta({ quantity: 'length', description: 'length, coherent SI' });
export const point = z.strictObject({ x: coordinate, y: coordinate });
