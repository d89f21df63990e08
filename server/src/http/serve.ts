import { revisionSchema } from '@wick/contract/api';
import type { Route } from '@wick/contract/route';
import type { Request, Response, Router } from 'express';
import type { z } from 'zod';
import { ProblemError } from '../services/problem.ts';
import { readBody, takeBody } from './body.ts';

export interface Asked<R extends Route> {
  /** Of the address, where it has one. */
  readonly id: string;
  /** From ?revision=. @throws ProblemError where it is missing or none */
  readonly revision: () => number;
  readonly body: R['body'] extends z.ZodType ? z.infer<R['body']> : null;
}

interface Options {
  /** Largest body, bytes. */
  readonly limit?: number;
  readonly status?: number;
}

/** Mounts a route of the contract: its address and body are read and checked before, its answer sent after. */
export function serve<R extends Route>(
  router: Router,
  route: R,
  handle: (asked: Asked<R>, request: Request, response: Response) => Promise<z.infer<R['answer']>>,
  { limit, status = 200 }: Options = {},
): void {
  const method = route.method.toLowerCase() as Lowercase<Route['method']>;
  router[method](route.path, ...takeBody(route, limit), async (request, response) => {
    const asked = {
      id: idOf(request),
      revision: () => revisionOf(request),
      body: readBody(route, request) as Asked<R>['body'],
    };
    const answer = await handle(asked, request, response);
    if (answer === undefined) response.status(204).end();
    else response.status(status).json(answer);
  });
}

const LONGEST_ID = 200;

/** @throws ProblemError NOT_FOUND where nothing can have that id */
export function idOf(request: Request): string {
  const id = String(request.params.id ?? '');
  const isPossible = id.length <= LONGEST_ID && id.isWellFormed() && !/\p{Cc}/u.test(id);
  if (isPossible) return id;
  throw new ProblemError('NOT_FOUND', 'Nothing here has that id. Go back to the list.');
}

/** The entry sent has to be the one that the address names. */
export function requireSameId(named: string, sent: string): void {
  if (sent !== named)
    throw new ProblemError(
      'BAD_REQUEST',
      `The address names “${named}”, the entry “${sent}”. Make them agree.`,
    );
}

function revisionOf(request: Request): number {
  const read = revisionSchema.safeParse(Number(request.query.revision));
  if (read.success) return read.data;
  throw new ProblemError('BAD_REQUEST', 'Say which revision is meant: add ?revision= to the address.');
}
