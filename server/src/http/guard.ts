import type { RequestHandler } from 'express';
import { ProblemError } from '../services/problem.ts';

export interface GuardParts {
  /** Names under which this server is reached, without port, addresses of version 6 in brackets. */
  readonly hosts: ReadonlySet<string>;
}

/** Names of this machine itself. */
export const OWN_NAMES: ReadonlySet<string> = new Set(['127.0.0.1', 'localhost', '[::1]']);

/**
 * Keeps out what does not come from this program's own pages: a name that was turned to this address (rebinding), and pages of
 * other origins. Source: Fetch Metadata (W3C), Origin (RFC 6454). What sends neither is no browser.
 */
export function guardOrigin({ hosts }: GuardParts): RequestHandler {
  return (request, _response, next) => {
    const host = (request.headers.host ?? '').toLowerCase();
    const name = host.replace(/:\d+$/, '');
    if (!hosts.has(name))
      throw new ProblemError(
        'NOT_ALLOWED',
        `This server is not called “${name}”. Open it under its own address.`,
      );
    const { origin } = request.headers;
    if (origin !== undefined && !isOwn(origin, host)) refuseForeign();
    const site = request.headers['sec-fetch-site'];
    const isLink = request.method === 'GET' && request.headers['sec-fetch-mode'] === 'navigate';
    if (site !== undefined && site !== 'same-origin' && site !== 'none' && !isLink) refuseForeign();
    next();
  };
}

function isOwn(origin: string, host: string): boolean {
  try {
    return new URL(origin).host === host.replace(/:(80|443)$/, '') || new URL(origin).host === host;
  } catch {
    return false;
  }
}

function refuseForeign(): never {
  throw new ProblemError('NOT_ALLOWED', 'Another site’s page asked for this. Open the program itself.');
}
