import { sentenceOf } from '@wick/contract/job-file';
import type { Request } from 'express';
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

/** The entry sent has to be the one that the address names. */
export function requireSameId(request: Request, id: string): void {
  if (id !== request.params.id)
    throw new ProblemError(
      'BAD_REQUEST',
      `The address names “${String(request.params.id)}”, the entry “${id}”. Make them agree.`,
    );
}

/** Revision that a deletion starts from, from ?revision=. */
export function revisionOf(request: Request): number {
  const revision = Number(request.query.revision);
  if (Number.isInteger(revision) && revision > 0) return revision;
  throw new ProblemError('BAD_REQUEST', 'Say which revision is meant: add ?revision= to the address.');
}
