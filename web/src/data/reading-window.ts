import { computed, onScopeDispose, shallowRef, watch, type Ref } from 'vue';
import { api } from './api.ts';
import { insert, type Points } from './instruments.ts';
import { stream } from './stream.ts';

/** A stretch of time, ms since 1970. */
export interface Stretch {
  readonly from: number;
  readonly to: number;
}

/** Curve of an instrument over a stretch, thinned: each point between its low and its high. */
export interface Curve {
  readonly ats: readonly number[];
  readonly means: readonly number[];
  readonly lows: readonly number[];
  readonly highs: readonly number[];
}

const PLACES = 1000;
/** What lies to either side is fetched with it, as a share: a hand that drags finds it there. */
const BESIDE = 0.5;
const SETTLE = 120;
/** So many new points are drawn as they came before the stretch is asked for again. */
const MOST_FRESH = 600;

const nothing: Curve = { ats: [], means: [], lows: [], highs: [] };

/** The curve of an instrument in the stretch that is looked at, however much was read; new readings are added as they come. */
export function useReadingWindow(instrumentId: Ref<string | null>, view: Ref<Stretch>) {
  const fetched = shallowRef<{ readonly curve: Curve; readonly stretch: Stretch } | null>(null);
  const fresh = shallowRef<Points>({ ats: [], values: [] });
  let asked = 0;
  let settling: ReturnType<typeof setTimeout> | undefined;

  async function fetchIt(): Promise<void> {
    const id = instrumentId.value;
    if (id === null) return;
    const own = ++asked;
    const { from, to } = view.value;
    const beside = BESIDE * (to - from);
    const stretch = { from: Math.max(0, Math.round(from - beside)), to: Math.round(to + beside) };
    fresh.value = { ats: [], values: [] };
    const read = await api.readWindow(id, { ...stretch, places: PLACES }).catch(() => null);
    if (own !== asked || !read) return;
    const { starts, means, lows, highs } = read;
    fetched.value = { curve: { ats: starts, means, lows, highs }, stretch };
  }

  /** What is there covers what is looked at, and is neither far too fine nor too coarse. */
  function isEnough(): boolean {
    if (!fetched.value) return false;
    const { stretch } = fetched.value;
    const { from, to } = view.value;
    const ratio = (stretch.to - stretch.from) / (to - from);
    return stretch.from <= from && stretch.to >= Math.min(to, stream.now()) && ratio < 5 && ratio > 1.2;
  }

  watch(
    [instrumentId, view],
    ([id], before) => {
      if (id !== before[0]) {
        fetched.value = null;
        void fetchIt();
        return;
      }
      clearTimeout(settling);
      settling = setTimeout(() => {
        if (!isEnough()) void fetchIt();
      }, SETTLE);
    },
    { immediate: true },
  );
  const stops = [
    stream.on('gap', () => void fetchIt()),
    stream.on('readings', ({ instrumentId: id, points }) => {
      if (id !== instrumentId.value) return;
      for (const [at, value] of points) insert(fresh.value, at, value);
      fresh.value = { ...fresh.value };
      if (fresh.value.ats.length > MOST_FRESH) void fetchIt();
    }),
  ];
  onScopeDispose(() => {
    clearTimeout(settling);
    stops.forEach((stop) => stop());
  });

  return computed((): Curve => {
    const { curve } = fetched.value ?? { curve: nothing };
    const end = curve.ats.at(-1) ?? -Infinity;
    const first = fresh.value.ats.findIndex((at) => at > end);
    if (first < 0) return curve;
    const [ats, values] = [fresh.value.ats.slice(first), fresh.value.values.slice(first)];
    return {
      ats: [...curve.ats, ...ats],
      means: [...curve.means, ...values],
      lows: [...curve.lows, ...values],
      highs: [...curve.highs, ...values],
    };
  });
}
