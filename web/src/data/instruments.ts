import type { Instrument } from '@wick/contract/run/instrument';
import { ref, shallowRef, watch, onScopeDispose, type Ref } from 'vue';
import { api } from './api.ts';
import { stream } from './stream.ts';

/** What was read last of an instrument: ms since 1970, SI. */
interface Last {
  readonly at: number;
  readonly value: number;
}

const list = shallowRef<readonly Instrument[]>([]);
const last = shallowRef<ReadonlyMap<string, Last>>(new Map());
const message = ref<string | null>(null);
let isListening = false;

async function load(): Promise<void> {
  try {
    list.value = await api.listInstruments();
    const next = new Map(last.value);
    for (const { id, last: read } of list.value)
      if (read && Date.parse(read.at) >= (next.get(id)?.at ?? 0))
        next.set(id, { at: Date.parse(read.at), value: read.value });
    last.value = next;
    message.value = null;
  } catch (error) {
    message.value = (error as Error).message;
  }
}

function listen(): void {
  if (isListening) return;
  isListening = true;
  stream.on('gap', () => void load());
  stream.on('readings', ({ instrumentId, points }) => {
    if (!list.value.some(({ id }) => id === instrumentId)) void load();
    const [at, value] = points.at(-1)!;
    if (at >= (last.value.get(instrumentId)?.at ?? 0))
      last.value = new Map(last.value).set(instrumentId, { at, value });
  });
}

/** The workshop's instruments, and what each showed last, as it comes. */
export function useInstruments() {
  listen();
  if (list.value.length === 0) void load();
  return { list, last, message, load };
}

/** Readings in the order of their times, growing. */
export interface Points {
  readonly ats: number[];
  readonly values: number[];
}

/** Puts a reading where it belongs; one of a time that is there already takes its place. */
export function insert({ ats, values }: Points, at: number, value: number): void {
  let n = ats.length;
  while (n > 0 && ats[n - 1]! > at) n -= 1;
  if (n > 0 && ats[n - 1] === at) values[n - 1] = value;
  else {
    ats.splice(n, 0, at);
    values.splice(n, 0, value);
  }
}

/** Single readings that are fetched of a stretch at most. */
const MOST = 3000;

/** Readings of an instrument from a time on, and what comes to them; ms since 1970. */
export function useSamples(
  instrumentId: Ref<string | null>,
  from: Ref<number | null>,
  to: Ref<number | null>,
) {
  const points = shallowRef<Points>({ ats: [], values: [] });
  let asked = 0;

  async function fetchAll(): Promise<void> {
    const own = ++asked;
    points.value = { ats: [], values: [] };
    const [id, start] = [instrumentId.value, from.value];
    if (id === null || start === null) return;
    const end = Math.max(to.value ?? 8e15, start + 1);
    const read = await api.readSamples(id, { from: start, to: end, most: MOST }).catch(() => null);
    if (own !== asked || !read) return;
    const next: Points = { ats: read.ats, values: read.values };
    points.value.ats.forEach((at, n) => insert(next, at, points.value.values[n]!));
    points.value = next;
  }

  watch([instrumentId, from, to], () => void fetchAll(), { immediate: true });
  const stops = [
    stream.on('gap', () => void fetchAll()),
    stream.on('readings', (told) => {
      const [start, end] = [from.value, to.value];
      if (told.instrumentId !== instrumentId.value || start === null) return;
      const fresh = told.points.filter(([at]) => at >= start && (end === null || at <= end));
      if (fresh.length === 0) return;
      for (const [at, value] of fresh) insert(points.value, at, value);
      points.value = { ...points.value };
    }),
  ];
  onScopeDispose(() => stops.forEach((stop) => stop()));
  return points;
}
