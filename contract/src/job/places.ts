import { z } from 'zod';
import { quantity } from '../quantity.ts';

export const itemId = z.string().regex(/^[A-Za-z0-9_-]{1,40}$/, 'an id is up to 40 letters, digits, - or _');
export const coordinate = quantity('length', { atLeast: -1000, atMost: 1000 });
export const point = z.strictObject({ x: coordinate, y: coordinate });
