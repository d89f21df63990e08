import { routes } from '@wick/contract/api';
import { Router, type Response } from 'express';
import type { Hub, Position, StreamEvent, Told } from '../services/run/hub.ts';
import type { ReadingService } from '../services/instruments/reading-service.ts';
import type { RunService } from '../services/run/run-service.ts';

interface StreamParts {
  readonly hub: Hub;
  readonly runs: Pick<RunService, 'since' | 'lastOrder'>;
  readonly readings: Pick<ReadingService, 'since' | 'lastOrder'>;
}

/** Readings are told this often, ms, so many of an instrument at most; more are thinned. */
const FLUSH_EVERY = 200;
const MOST_POINTS = 50;
/** The clock is told so often, ms: a screen that hears nothing for longer has lost the server. */
const CLOCK_EVERY = 3000;
/** A screen that reads so slowly is let go, bytes; it comes back and is told what it missed. */
const MOST_UNREAD = 4_000_000;
const MOST_STREAMS = 200;

/** Tells every open screen what happens, by server-sent events that go on where they stopped. */
export function streamRouter({ hub, runs, readings }: StreamParts): Router {
  const router = Router();
  let openCount = 0;

  router.get(routes.stream.path, async (request, response) => {
    if (openCount >= MOST_STREAMS) return void response.status(503).end();
    response.writeHead(200, {
      'content-type': 'text/event-stream',
      'cache-control': 'no-cache, no-transform',
      'x-accel-buffering': 'no',
    });
    openCount += 1;
    const held: Told[] = [];
    let isTold = false;
    const at = positionOf(request.headers['last-event-id']) ?? {
      entry: await runs.lastOrder(),
      reading: await readings.lastOrder(),
    };
    const screen = screenOf(response, at);
    const stopListening = hub.listen((told) => (isTold ? screen.take(told) : held.push(told)));
    const clock = setInterval(() => screen.send({ kind: 'clock', data: { now: Date.now() } }), CLOCK_EVERY);
    const flush = setInterval(() => screen.flush(), FLUSH_EVERY);
    response.on('close', () => {
      openCount -= 1;
      stopListening();
      clearInterval(clock);
      clearInterval(flush);
    });
    screen.send({ kind: 'clock', data: { now: Date.now() } });
    try {
      const [entries, missed] = await Promise.all([runs.since(at), readings.since(at)]);
      if (!entries || !missed) screen.send({ kind: 'gap', data: {} });
      for (const event of [...(entries ?? []), ...(missed?.events ?? [])]) screen.send(event);
      if (missed) screen.reach('reading', missed.order);
      if (entries)
        for (const event of entries) if (event.kind === 'entry') screen.reach('entry', event.data.order);
    } catch {
      // It comes back by itself and asks again.
      response.destroy();
      return;
    }
    isTold = true;
    for (const told of held) screen.take(told);
  });
  return router;
}

/** One screen: what it has been told, and readings that wait for the next telling. */
function screenOf(response: Response, from: Position) {
  const at = { ...from };
  const waiting = new Map<string, [number, number][]>();
  let lastReading = at.reading;

  function send(event: StreamEvent): void {
    if (response.writableLength > MOST_UNREAD) return void response.destroy();
    response.write(
      `id: ${at.entry}-${at.reading}\nevent: ${event.kind}\ndata: ${JSON.stringify(event.data)}\n\n`,
    );
  }
  function reach(what: keyof Position, order: number): void {
    at[what] = Math.max(at[what], order);
    lastReading = Math.max(lastReading, at.reading);
  }

  return {
    send,
    reach,
    take({ event, order }: Told): void {
      if (event.kind === 'entry') {
        if (order <= at.entry) return;
        at.entry = order;
        return send(event);
      }
      if (event.kind !== 'readings') return send(event);
      if (order <= at.reading) return;
      const { instrumentId, points } = event.data;
      waiting.set(instrumentId, [...(waiting.get(instrumentId) ?? []), ...points]);
      lastReading = Math.max(lastReading, order);
    },
    flush(): void {
      if (waiting.size === 0) return;
      at.reading = lastReading;
      for (const [instrumentId, points] of waiting)
        send({ kind: 'readings', data: { instrumentId, points: thinned(points) } });
      waiting.clear();
    },
  };
}

/** The last one always among them. */
function thinned(points: [number, number][]): [number, number][] {
  const each = Math.ceil(points.length / MOST_POINTS);
  return points.filter((_, n) => (points.length - 1 - n) % each === 0);
}

function positionOf(id: string | string[] | undefined): Position | null {
  const [, entry, reading] = /^(\d{1,15})-(\d{1,15})$/.exec(String(id ?? '')) ?? [];
  return entry !== undefined && reading !== undefined
    ? { entry: Number(entry), reading: Number(reading) }
    : null;
}
