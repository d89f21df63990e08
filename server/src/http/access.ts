import { routes } from '@wick/contract/api';
import { parse } from 'cookie';
import { Router, type Request, type RequestHandler, type Response } from 'express';
import type { AccessService } from '../services/access/access-service.ts';
import { ProblemError } from '../services/problem.ts';
import { OWN_NAMES } from './guard.ts';
import { idOf, serve } from './serve.ts';

export interface AccessParts {
  readonly access: AccessService;
  /** Whether others on the network can reach this server: then they have to be let in. */
  readonly isOnNetwork: boolean;
  /** Whether it speaks TLS. */
  readonly isSecure: boolean;
}

/** Days that a device stays let in while nobody uses it. */
const COOKIE_DAYS = 90;
/** What a device that may look only is shown. */
const SHOWN = /^\/api\/(jobs|materials|moulds|shop|steps|runs|watches|instruments|stream)(\/|$)/;

const LOOPBACK = new Set(['127.0.0.1', '::1', '::ffff:127.0.0.1']);
const addressOf = (request: Request) => request.socket.remoteAddress ?? '';

/** On this machine itself, and not through something that passes requests on. */
function isLocal(request: Request): boolean {
  const { host = '', forwarded, 'x-forwarded-for': passedOn } = request.headers;
  return (
    LOOPBACK.has(addressOf(request)) &&
    OWN_NAMES.has(host.toLowerCase().replace(/:\d+$/, '')) &&
    forwarded === undefined &&
    passedOn === undefined
  );
}

/** Lets devices in, and everything behind it only to those that were. On this machine itself nothing is asked. */
export function accessRouter({ access, isOnNetwork, isSecure }: AccessParts): Router {
  const router = Router();
  const name = isSecure ? '__Host-wick' : 'wick';
  const cookieOf = (request: Request) => parse(request.headers.cookie ?? '')[name] ?? '';
  const setCookie = (response: Response, value: string) =>
    response.cookie(name, value, {
      httpOnly: true,
      sameSite: 'strict',
      secure: isSecure,
      path: '/',
      maxAge: COOKIE_DAYS * 86_400_000,
    });
  /** Answers with a new word where it is time for one. */
  async function visitorOf(request: Request, response: Response) {
    const cookie = cookieOf(request);
    const visitor = cookie === '' ? null : await access.visitorOf(cookie, addressOf(request));
    if (visitor?.cookie) setCookie(response, visitor.cookie);
    return visitor;
  }

  serve(router, routes.getStanding, async (_asked, request, response) => {
    if (!isOnNetwork || isLocal(request)) return { kind: 'local' as const, name: null, isOnNetwork };
    const visitor = await visitorOf(request, response);
    return { kind: visitor?.access ?? ('outside' as const), name: visitor?.name ?? null, isOnNetwork };
  });
  serve(
    router,
    routes.enter,
    async ({ body }, request, response) => {
      setCookie(response, await access.enter(body, addressOf(request)));
    },
    { limit: 4000 },
  );
  if (isOnNetwork) router.use('/api', requireAccess);
  async function requireAccess(...[request, response, next]: Parameters<RequestHandler>) {
    if (isLocal(request) || request.originalUrl === routes.health.path) return next();
    const visitor = await visitorOf(request, response);
    if (!visitor)
      throw new ProblemError('NOT_LET_IN', 'This device is not let in, or was sent away. Enter again.');
    const path = request.originalUrl.replace(/\?.*$/s, '');
    const looks = (request.method === 'GET' && SHOWN.test(path)) || path === routes.leave.path;
    if (visitor.access === 'view' && !looks)
      throw new ProblemError('NOT_ALLOWED', 'This screen was let in to look only.');
    response.locals.visitorId = visitor.id;
    response.locals.visitorName = visitor.name;
    next();
  }
  const ownId = (response: Response) => (response.locals.visitorId as string | undefined) ?? null;

  serve(router, routes.leave, async (_asked, request, response) => {
    const id = ownId(response);
    response.clearCookie(name, { httpOnly: true, sameSite: 'strict', secure: isSecure, path: '/' });
    if (id) await access.sendAway(id, id, addressOf(request));
  });
  serve(router, routes.pair, async () => access.pair());
  serve(router, routes.makeLink, async ({ body }, request) => ({
    link: await access.makeLink(body.name, addressOf(request)),
  }));
  serve(router, routes.listDevices, (_asked, _request, response) => access.list(ownId(response)));
  serve(router, routes.sendAway, (_asked, request, response) =>
    access.sendAway(idOf(request), ownId(response), addressOf(request)),
  );
  serve(router, routes.listAudit, () => access.audit());
  return router;
}
