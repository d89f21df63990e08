import { MAX_FILE_BYTES, type Route } from '@wick/contract/api';
import { sentenceOf } from '@wick/plan/files/read';
import express, { type RequestHandler, type Router } from 'express';
import { z } from 'zod';
import { ProblemError } from '../services/problem.ts';

export interface Asked<R extends Route> {
  /** Of the address, where it has one. */
  readonly id: string;
  readonly query: (name: string) => string | null;
  readonly body: R['body'] extends z.ZodType ? z.infer<R['body']> : null;
}

interface Options {
  readonly limit?: number | string;
  readonly status?: number;
}

/** Mounts a route of the contract: its body is read and checked before, its answer sent after. */
export function serve<R extends Route>(
  router: Router,
  route: R,
  handle: (asked: Asked<R>) => Promise<z.infer<R['answer']>>,
  { limit = MAX_FILE_BYTES, status = 200 }: Options = {},
): void {
  const method = route.method.toLowerCase() as Lowercase<Route['method']>;
  router[method](route.path, bodyOf(route, limit), async (request, response) => {
    const answer = await handle({
      id: String(request.params.id ?? ''),
      query: (name) => (typeof request.query[name] === 'string' ? request.query[name] : null),
      body: (route.body ? parsed(route.body, request.body) : null) as Asked<R>['body'],
    });
    if (answer === undefined) response.status(204).end();
    else response.status(status).json(answer);
  });
}

function bodyOf({ body }: Route, limit: number | string): RequestHandler {
  if (body === null) return (_request, _response, next) => next();
  return body instanceof z.ZodString
    ? express.text({ limit, type: () => true, defaultCharset: 'utf-8' })
    : express.json({ limit });
}

function parsed(schema: z.ZodType, body: unknown): unknown {
  const read = schema.safeParse(schema instanceof z.ZodString && typeof body !== 'string' ? '' : body);
  if (read.success) return read.data;
  throw new ProblemError('BAD_REQUEST', sentenceOf(read.error));
}

/** The entry sent has to be the one that the address names. */
export function requireSameId(named: string, sent: string): void {
  if (sent !== named)
    throw new ProblemError(
      'BAD_REQUEST',
      `The address names “${named}”, the entry “${sent}”. Make them agree.`,
    );
}

/** Revision that a deletion starts from, from ?revision=. */
export function revisionOf(asked: Pick<Asked<Route>, 'query'>): number {
  const revision = Number(asked.query('revision'));
  if (Number.isInteger(revision) && revision > 0) return revision;
  throw new ProblemError('BAD_REQUEST', 'Say which revision is meant: add ?revision= to the address.');
}
