import { routes } from '@wick/contract/api';
import { MAX_BATCH_BYTES, MOST_PLACES, MOST_SAMPLES } from '@wick/contract/run/instrument';
import express, { Router, type Request } from 'express';
import { z } from 'zod';
import type { InstrumentService } from '../services/instruments/instrument-service.ts';
import { ProblemError } from '../services/problem.ts';
import { textOf } from './body.ts';
import { serve } from './serve.ts';

/** A line of JSON each. */
const LINES = new Set(['application/x-ndjson', 'application/jsonl', 'application/json']);

/** What devices post, each with its own word: mounted before anybody is asked who they are. */
export function readingRouter(instruments: InstrumentService): Router {
  const router = Router();
  router.post(
    routes.postReadings.path,
    (request, _response, next) => {
      wordOf(request);
      const type = (request.headers['content-type'] ?? '').toLowerCase().split(';')[0]!.trim();
      if (!LINES.has(type))
        throw new ProblemError(
          'WRONG_TYPE',
          'Send readings as application/x-ndjson: one JSON object a line.',
        );
      wordOf(request);
      next();
    },
    express.raw({ limit: MAX_BATCH_BYTES, type: () => true }),
    async (request, response) => {
      const taken = await instruments.post(wordOf(request), textOf(request.body as unknown));
      response.json(taken);
    },
  );
  return router;
}

function wordOf({ headers }: Request): string {
  const word = /^bearer\s+(\S{1,200})$/i.exec(headers.authorization ?? '')?.[1];
  if (word) return word;
  throw new ProblemError('BAD_WORD', 'A device shows its word in the header Authorization: Bearer ….');
}

const ms = z.coerce.number().gte(0).lte(8.64e15);
const windowQuery = z.object({ from: ms, to: ms, places: z.coerce.number().int().gte(1).lte(MOST_PLACES) });
const samplesQuery = z.object({ from: ms, to: ms, most: z.coerce.number().int().gte(1).lte(MOST_SAMPLES) });

function queryOf<T extends { from: number; to: number }>(schema: z.ZodType<T>, { query }: Request): T {
  const read = schema.safeParse(query);
  if (read.success && read.data.to > read.data.from) return read.data;
  throw new ProblemError(
    'BAD_REQUEST',
    `Say which stretch is meant: ?from= and ?to= in ms since 1970, from before to, and how many places (up to ${MOST_PLACES}) or readings (up to ${MOST_SAMPLES}).`,
  );
}

export function instrumentRouter(instruments: InstrumentService): Router {
  const router = Router();
  serve(router, routes.listInstruments, () => instruments.list());
  serve(router, routes.addInstrument, ({ body }) => instruments.add(body), { status: 201, limit: 10_000 });
  serve(router, routes.renewWord, ({ id }) => instruments.renewWord(id));
  serve(router, routes.revokeInstrument, ({ id }) => instruments.revoke(id));
  serve(router, routes.typeReading, ({ id, body }) => instruments.type(id, body), { limit: 10_000 });
  serve(router, routes.readWindow, ({ id }, request) => {
    const { from, to, places } = queryOf(windowQuery, request);
    return instruments.window(id, from, to, places);
  });
  serve(router, routes.readSamples, ({ id }, request) => {
    const { from, to, most } = queryOf(samplesQuery, request);
    return instruments.samples(id, from, to, most);
  });
  return router;
}
