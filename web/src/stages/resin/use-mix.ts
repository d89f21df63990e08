import {
  afterTaking,
  currentMixes,
  isSteady,
  mixesOf,
  mixState,
  pourState,
  scaleTrouble,
  type Component,
} from '@wick/plan/resin/mixing';
import { ratioWindowOf } from '@wick/plan/resin/ratio';
import { lotStatesOf, lotToTake } from '@wick/plan/resin/storage';
import { settledIn } from '@wick/plan/settle';
import { isAtHand } from '@wick/plan/run/gauges';
import { computed, proxyRefs, ref, watch, type InjectionKey, inject, provide } from 'vue';
import { useRun, useSession } from '../../compute/use-desk.ts';
import { useInstruments, useSamples } from '../../data/instruments.ts';
import { useLibraryStore } from '../../data/library-store.ts';
import { useShopStore } from '../../data/shop-store.ts';
import { useTicking } from '../../ui/use-ticking.ts';
import type { ResinBench } from './bench.ts';
import { useSheets } from './use-sheets.ts';

/** More than this on the scale, in steps of its display, and something is being poured. */
const FLOWS = 3;

/** One batch on the scale: what is to be poured, what the scale says, and what is written down. */
function createMix(bench: ResinBench) {
  const job = useSession();
  const run = useRun();
  const shop = useShopStore();
  const library = useLibraryStore();
  const { list } = useInstruments();
  const { number, look, sheet, potName } = useSheets(bench);
  const now = useTicking(run.now);

  const mix = computed(
    () => currentMixes(mixesOf(run.state.entries)).find(({ begun }) => begun.number === number.value) ?? null,
  );
  const scales = computed(() =>
    list.value.filter(
      (one) => one.measures === 'mass' && one.revokedAt === null && isAtHand(one, run.rehearsalId),
    ),
  );
  const chosenScale = ref<string | null>(null);
  const scale = computed(
    () => scales.value.find(({ id }) => id === chosenScale.value) ?? scales.value[0] ?? null,
  );
  const step = computed(() => scale.value?.resolution ?? settledIn(job.laid, 'resin.scaleStep'));
  /** Readings of the last while. */
  const LATELY = 60_000;
  const since = computed(() => {
    const begun = run.state.entries.find(({ id }) => id === mix.value?.id);
    return begun ? Date.parse(begun.at) - LATELY : null;
  });
  const samples = useSamples(
    computed(() => scale.value?.id ?? null),
    since,
    ref(null),
  );
  const readings = computed(() => {
    const { ats, values } = samples.value;
    const from = Math.max(0, ats.length - 240);
    return ats.slice(from).map((at, n) => ({ at, value: values[from + n]! }));
  });
  const shown = computed(() => readings.value.at(-1)?.value ?? null);
  const trouble = computed(() =>
    scale.value && mix.value ? scaleTrouble(readings.value, now.value, step.value) : null,
  );
  const isRead = computed(() => shown.value !== null && trouble.value !== 'silent');
  const isStill = computed(() => isSteady(readings.value, step.value));

  const rule = computed(
    () =>
      sheet.value && {
        ...{ parts: sheet.value.parts, step: step.value },
        window: ratioWindowOf(sheet.value.resin),
      },
  );
  const state = computed(() => (mix.value && rule.value ? mixState(mix.value, rule.value) : null));
  const next = computed(() => (state.value?.at === 'pour' ? state.value.next : null));
  /** On the scale since it was last set to zero, kg. */
  const amount = computed(() => {
    const zero = mix.value?.zero ?? null;
    return zero !== null && shown.value !== null && isRead.value ? Math.max(0, shown.value - zero) : 0;
  });
  const pour = computed(() => next.value && pourState(next.value, amount.value));
  /** If it were taken as it is now: what would have to be added then, and to how much. */
  const answer = computed(() =>
    mix.value && next.value && rule.value && pour.value?.tone === 'over'
      ? afterTaking(mix.value, next.value, amount.value, rule.value)
      : null,
  );
  /** Seconds since resin and hardener met. */
  const age = computed(() =>
    mix.value?.contactAt == null ? null : Math.max(0, (now.value - mix.value.contactAt) / 1000),
  );

  let told = '';
  watch(
    () =>
      next.value?.what === 'hardener' && mix.value?.contactAt === null && amount.value > FLOWS * step.value,
    (meets) => {
      if (!meets || !mix.value || told === mix.value.id) return;
      told = mix.value.id;
      void run.say({ kind: 'contact', mixId: mix.value.id });
    },
  );

  const lots = computed(() => {
    const found = library.find(sheet.value?.resin.id ?? '')?.material;
    const states =
      found?.kind === 'resin' ? lotStatesOf(found, { day: Date.now(), room: shop.shop.temperature }) : [];
    const best = (part: Component) => lotToTake(states, part)?.lot.number ?? '';
    return { states, resin: best('resin'), hardener: best('hardener') };
  });

  const begin = (used: { resin: string; hardener: string }, readied: readonly string[]) => {
    if (!sheet.value) return;
    const { number: n, count, resin, masses } = sheet.value;
    void run.say({
      ...{ kind: 'mixBegun', number: n, count, materialId: resin.id, lots: used },
      ...{ resin: masses.resin, hardener: masses.hardener, readied: [...readied] },
    });
  };
  /** What is in the bucket was thrown away: the same batch once more, from the empty bucket on. */
  const beginAgain = () => mix.value && run.say(mix.value.begun);
  const tare = (value: number, isTyped: boolean) =>
    mix.value &&
    run.say({
      ...{ kind: 'tared', mixId: mix.value.id, value },
      instrumentId: isTyped ? null : (scale.value?.id ?? null),
    });
  /** Writes down what has been poured; the scale counts from there. */
  const take = (mass: number, isTyped: boolean) =>
    mix.value &&
    next.value &&
    run.say({
      ...{ kind: 'poured', mixId: mix.value.id, what: next.value.what, mass },
      instrumentId: isTyped ? null : (scale.value?.id ?? null),
      zero: isTyped ? 0 : (shown.value ?? 0),
    });

  return {
    ...{
      number,
      look,
      sheet,
      potName,
      mix,
      scales,
      scale,
      chosenScale,
      step,
      shown,
      trouble,
      isRead,
      isStill,
    },
    ...{ state, next, amount, pour, answer, age, now, lots, begin, beginAgain, tare, take },
  };
}

const make = (bench: ResinBench) => proxyRefs(createMix(bench));
type OpenMix = ReturnType<typeof make>;
const mixKey: InjectionKey<OpenMix> = Symbol('mix');

/** Made once by the screen, for its parts. */
export function provideMix(bench: ResinBench): OpenMix {
  const mix = make(bench);
  provide(mixKey, mix);
  return mix;
}
export const useMix = (): OpenMix => inject(mixKey)!;
