import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import { createStream, type StreamPage, type StreamSource } from './stream.ts';

class FakeSource implements StreamSource {
  readonly listeners = new Map<string, (event: MessageEvent<string>) => void>();
  onerror: ((event: Event) => void) | null = null;
  readyState = 1;
  addEventListener(kind: string, listener: (event: MessageEvent<string>) => void) {
    this.listeners.set(kind, listener);
  }
  close() {
    this.readyState = 2;
  }
  tell(kind: string, data: unknown) {
    this.listeners.get(kind)?.({ data: JSON.stringify(data) } as MessageEvent<string>);
  }
}

beforeEach(() => void jest.useFakeTimers());
afterEach(() => void jest.useRealTimers());

/** @param places that hidden tabs may listen from */
function open(places = 1) {
  const sources: FakeSource[] = [];
  let isHidden = false;
  let onTurn = () => undefined as void;
  let free = places;
  const page: StreamPage = {
    isHidden: () => isHidden,
    onTurn: (listener) => (onTurn = listener),
    takePlace: async () => (free > 0 ? ((free -= 1), () => void (free += 1)) : null),
  };
  const stream = createStream(() => {
    sources.push(new FakeSource());
    return sources.at(-1)!;
  }, page);
  stream.start();
  stream.start();
  const turn = (hidden: boolean) => {
    isHidden = hidden;
    onTurn();
  };
  return { stream, sources, turn, free: () => free };
}

test('tells what it hears, once begun, and not what is garbled', () => {
  const { stream, sources } = open();
  expect(sources).toHaveLength(1);
  const heard: unknown[] = [];
  const end = stream.on('readings', (data) => heard.push(data));
  const good = { instrumentId: 'g', points: [[1, 2]] };
  sources[0]!.tell('readings', good);
  sources[0]!.tell('readings', { instrumentId: 'g', points: 'many' });
  end();
  sources[0]!.tell('readings', good);
  expect(heard).toEqual([good]);
  stream.stop();
});

test('goes by the server’s clock', () => {
  const { stream, sources } = open();
  const now = Date.now();
  sources[0]!.tell('clock', { now: now + 3_600_000 });
  expect(Math.abs(stream.now() - (now + 3_600_000))).toBeLessThan(100);
  stream.stop();
});

test('a server that says nothing counts as lost until it is heard again', async () => {
  const { stream, sources } = open();
  sources[0]!.tell('clock', { now: Date.now() });
  await jest.advanceTimersByTimeAsync(8000);
  expect(stream.isLost.value).toBe(false);
  await jest.advanceTimersByTimeAsync(3000);
  expect(stream.isLost.value).toBe(true);
  sources[0]!.tell('clock', { now: Date.now() });
  expect(stream.isLost.value).toBe(false);
  stream.stop();
});

test('one that the browser has given up is begun anew, and there may be a gap', async () => {
  const { stream, sources } = open();
  let gaps = 0;
  stream.on('gap', () => (gaps += 1));
  // While it comes back by itself nothing is done.
  sources[0]!.readyState = 0;
  sources[0]!.onerror!({} as Event);
  await jest.advanceTimersByTimeAsync(5000);
  expect(sources).toHaveLength(1);
  sources[0]!.close();
  sources[0]!.onerror!({} as Event);
  await jest.advanceTimersByTimeAsync(3500);
  expect(sources).toHaveLength(2);
  expect(gaps).toBe(1);
  stream.stop();
});

test('of hidden tabs one goes on listening; another lets go, and asks for all of it when it is seen again', async () => {
  const first = open(1);
  first.turn(true);
  await jest.advanceTimersByTimeAsync(25_000);
  expect(first.sources[0]!.readyState).toBe(1);
  expect(first.free()).toBe(0);
  first.turn(false);
  expect(first.free()).toBe(1);
  first.stream.stop();

  const second = open(0);
  let gaps = 0;
  second.stream.on('gap', () => (gaps += 1));
  second.turn(true);
  await jest.advanceTimersByTimeAsync(5000);
  second.turn(false);
  await jest.advanceTimersByTimeAsync(60_000);
  // A glance elsewhere changes nothing.
  expect(second.sources).toHaveLength(1);
  second.turn(true);
  await jest.advanceTimersByTimeAsync(25_000);
  expect(second.sources[0]!.readyState).toBe(2);
  await jest.advanceTimersByTimeAsync(60_000);
  expect(second.stream.isLost.value).toBe(false);
  second.turn(false);
  expect(second.sources).toHaveLength(2);
  expect(gaps).toBe(1);
  second.stream.stop();
});
