import { z } from 'zod';
import { quantity } from '../quantity.ts';
import { learned } from './learned.ts';

export const id = z.string().regex(/^[a-z0-9][a-z0-9-]{0,59}$/, 'use small letters, digits and hyphens');
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
/** On the shelf, in what it is priced by, and when to order; the library's alone. */
const counted = z.number().min(0).max(1e6).nullable().optional();
const stock = z.strictObject({ amount: counted, minimum: counted }).nullable().optional();

/** What every entry has. */
export const entry = { id, name, source, about, learned, price, stock };

export const fraction = quantity('fraction', { above: 0, below: 1 });
