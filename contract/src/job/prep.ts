import { z } from 'zod';
import { quantity } from '../quantity.ts';

const film = quantity('thickness', { above: 0, below: 0.02 });

/** What the mould gets before the first ply. A null is "unknown" for release and barrier, "none" for the gel coat. */
export const prepSchema = z.strictObject({
  /** A release recipe of the workshop's library of steps; null takes the first of them. */
  releaseId: z.string().max(60).nullable(),
  gelCoat: z
    .strictObject({
      name: z.string().trim().min(1).max(60),
      passes: z.number().int().min(1).max(10),
      /** Wet film in all, as a comb reads it. */
      film: z
        .strictObject({ low: film, high: film })
        .refine(({ low, high }) => low < high, 'a film ranges from less to more'),
    })
    .nullable(),
  /** Of what a skin coat behind the gel coat is made; null for none. */
  barrier: z.string().trim().min(1).max(120).nullable(),
});
export type JobPrep = z.infer<typeof prepSchema>;
