import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import type { Read } from '@wick/plan/files/read';
import { readFile, reading, type FileWorker } from './read-file.ts';

const file = new File(['x'], 'plan.dxf');
const workers: (FileWorker & { isEnded: boolean })[] = [];
function makeWorker() {
  const worker = {
    onmessage: null as FileWorker['onmessage'],
    onerror: null as FileWorker['onerror'],
    isEnded: false,
    postMessage: () => undefined,
    terminate: () => void (worker.isEnded = true),
  };
  workers.push(worker);
  return worker;
}
const answer = (value: unknown) =>
  workers.at(-1)!.onmessage!({ data: { ok: true, value } } as MessageEvent<Read<unknown>>);

beforeEach(() => void jest.useFakeTimers());
afterEach(() => void jest.useRealTimers());

test('what is read comes back, its worker is ended, and nothing is said of what was quick', async () => {
  const read = readFile({ kind: 'drawing', file }, makeWorker);
  answer('a drawing');
  expect(await read).toEqual({ ok: true, value: 'a drawing' });
  expect([workers.at(-1)!.isEnded, reading.value]).toEqual([true, null]);
});

test('what takes long is said, can be stopped, and is given up after five seconds', async () => {
  const stopped = readFile({ kind: 'library', file }, makeWorker);
  await jest.advanceTimersByTimeAsync(1000);
  expect(reading.value!.name).toBe('plan.dxf');
  reading.value!.stop();
  expect(await stopped).toMatchObject({ ok: false, message: 'It was stopped.' });
  expect([workers.at(-1)!.isEnded, reading.value]).toEqual([true, null]);
  const late = readFile({ kind: 'viscosity', file }, makeWorker);
  await jest.advanceTimersByTimeAsync(5000);
  expect(await late).toMatchObject({ ok: false, message: expect.stringContaining('within 5 s') });
  expect([workers.at(-1)!.isEnded, reading.value]).toEqual([true, null]);
});

test('a worker that breaks over a file is a refusal of that file', async () => {
  const read = readFile({ kind: 'drawing', file }, makeWorker);
  workers.at(-1)!.onerror!({} as ErrorEvent);
  expect(await read).toMatchObject({ ok: false, message: expect.stringContaining('cannot be read') });
});
