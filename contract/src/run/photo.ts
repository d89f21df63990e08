import { z } from 'zod';

/** Largest picture that is taken in, bytes and pixels. */
export const MAX_PHOTO_BYTES = 12_000_000;
export const MAX_PHOTO_PIXELS = 40_000_000;
/** A run keeps so many at most. */
export const MAX_PHOTOS = 300;

/** A picture as it is kept: scaled down, turned upright, without what the camera wrote into it. */
export const photoSchema = z.object({
  id: z.string(),
  runId: z.string(),
  width: z.number().int(),
  height: z.number().int(),
  byteCount: z.number().int(),
});
export type Photo = z.infer<typeof photoSchema>;
