import { MAX_FILE_BYTES } from '@wick/contract/api';
import type { Route } from '@wick/contract/route';
import { readJson } from '@wick/plan/files/json';
import { sentenceOf } from '@wick/plan/files/read';
import express, { type Request, type RequestHandler } from 'express';
import { z } from 'zod';
import { ProblemError } from '../services/problem.ts';

const JSON_TYPE = 'application/json';

/** Takes in the bytes of a body; what they mean is asked for by readBody. @param limit bytes */
export function takeBody({ body }: Route, limit = MAX_FILE_BYTES): RequestHandler[] {
  if (body === null) return [];
  return [requireType, express.raw({ limit, type: () => true })];
}

/** Only what this program's own pages send: no foreign form or beacon can name this type unasked. */
const requireType: RequestHandler = (request, _response, next) => {
  const [type, ...parameters] = (request.headers['content-type'] ?? '').toLowerCase().split(';');
  if (type!.trim() !== JSON_TYPE) throw new ProblemError('WRONG_TYPE', `Send the request as ${JSON_TYPE}.`);
  const charset = parameters.map((one) => one.trim()).find((one) => one.startsWith('charset='));
  if (charset && !/^charset="?utf-?8"?$/.test(charset))
    throw new ProblemError('WRONG_TYPE', 'Send the request in UTF-8.');
  next();
};

/** The body of a request as its route has it. @throws ProblemError NOT_JSON, BAD_REQUEST */
export function readBody(route: Route, request: Request): unknown {
  if (!route.body) return null;
  const text = textOf(request.body as unknown);
  if (route.body instanceof z.ZodString) return text;
  const value = readJson(text, 'The request');
  if (!value.ok) throw new ProblemError(value.code, value.message);
  const read = route.body.safeParse(value.value);
  if (read.success) return read.data;
  throw new ProblemError('BAD_REQUEST', sentenceOf(read.error));
}

/** @throws ProblemError NOT_JSON where it is no UTF-8 */
export function textOf(bytes: unknown): string {
  if (!(bytes instanceof Uint8Array)) return '';
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    throw new ProblemError(
      'NOT_JSON',
      'The request is not text in UTF-8. Save the file as UTF-8 and send it again.',
    );
  }
}
