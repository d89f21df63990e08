import { sentenceOf } from '@wick/contract/job-file';
import type { z } from 'zod';
import { ProblemError } from '../services/problem.ts';

/** Parses a request body against its schema. */
export function parseBody<T>(schema: z.ZodType<T>, body: unknown): T {
  const parsed = schema.safeParse(body);
  if (parsed.success) return parsed.data;
  throw new ProblemError(
    'BAD_REQUEST',
    sentenceOf(parsed.error).replace(' Correct it in the file and import it again.', ''),
  );
}
