import type { Place } from '@wick/contract/run/run';
import { orNull } from '@wick/core/model-error';
import { hashOf, keyOf } from '@wick/plan/forecast/key';
import { doubtOf } from '@wick/plan/forecast/doubt';
import { problemOf } from '@wick/plan/forecast/problem';
import { cureClockOf } from '@wick/plan/infusion/cure';
import { suspected } from '@wick/plan/infusion/day-faults';
import { infusionOf, openingNow } from '@wick/plan/infusion/infusion';
import { liveClockOf, priorOf, type BagReading } from '@wick/plan/infusion/live-clock';
import { nextActions } from '@wick/plan/infusion/next-action';
import { shapeIdsOf, withoutCommon, type SolvedShape } from '@wick/plan/infusion/problem-shapes';
import { isOtherwise, reforecast } from '@wick/plan/infusion/reforecast';
import { resinLeftOf } from '@wick/plan/infusion/resin-left';
import type { Ending } from '@wick/plan/infusion/stop';
import { runConditionsOf } from '@wick/plan/resin/run';
import { absoluteOf, byFineness, isGauge } from '@wick/plan/run/gauges';
import { settle } from '@wick/plan/settle';
import { holdOf } from '@wick/plan/vacuum/hold';
import {
  computed,
  inject,
  onScopeDispose,
  provide,
  proxyRefs,
  ref,
  shallowRef,
  watch,
  type InjectionKey,
} from 'vue';
import { Cancelled } from '../../compute/scheduler.ts';
import { useCard, useRun, useScheduler } from '../../compute/use-desk.ts';
import { useInstruments, useSamples } from '../../data/instruments.ts';
import { useShopStore } from '../../data/shop-store.ts';
import { createRehearsedPart } from './rehearsed-part.ts';

/** The answer is worked out anew at every entry, and so often anyway, ms on the wall. */
const EVERY = 2000;

/** Where the fill stands: its clock, what the marks say, what is next. Made once for the stage, shared by its panes. */
function createLive(isLookedAt: () => boolean) {
  const run = useRun();
  const work = useCard();
  const scheduler = useScheduler();
  const shopStore = useShopStore();
  const { list, last } = useInstruments();
  const pulse = ref(0);
  const timer = setInterval(() => (pulse.value += 1), EVERY);
  onScopeDispose(() => clearInterval(timer));

  const job = computed(() => work.laid ?? null);
  const shop = computed(() => work.basis?.shop ?? shopStore.shop);
  const infusion = computed(() => job.value && infusionOf(run.state, job.value));

  const at = (place: Place, isRight: (one: (typeof list.value)[number]) => boolean) =>
    computed(
      () =>
        [...run.state.attached]
          .filter(([, hung]) => hung.place === place)
          .flatMap(([id]) => list.value.find((one) => one.id === id && isRight(one)) ?? [])
          .sort(byFineness)[0] ?? null,
    );
  const gauge = at('bag', isGauge);
  const thermometer = at('mould', ({ measures }) => measures === 'temperature');
  const potScale = at('pot', ({ measures }) => measures === 'mass');
  const shown = (one: { readonly id: string } | null) => (one && last.value.get(one.id)?.value) ?? null;
  const ambient = computed(() => job.value && settle(job.value, shop.value)['shop.ambientPressure'].value);
  const pressure = computed(() => {
    const value = shown(gauge.value);
    return value === null || !gauge.value || ambient.value === null
      ? null
      : absoluteOf(gauge.value, value, ambient.value);
  });
  const samples = useSamples(
    computed(() => gauge.value?.id ?? null),
    computed(() => infusion.value?.openedAt ?? null),
    computed(() => null),
  );
  const readings = computed((): BagReading[] =>
    samples.value.ats.map((time, n) => ({
      at: time,
      pressure: absoluteOf(gauge.value!, samples.value.values[n]!, ambient.value ?? 101_325),
    })),
  );

  /** Readings count as they stood at the last pulse: a fill does not feel a gauge's flicker. */
  const heard = shallowRef<readonly BagReading[]>([]);
  watch([pulse, () => infusion.value?.openedAt], () => (heard.value = readings.value), { immediate: true });
  const clock = computed(
    () =>
      job.value &&
      infusion.value &&
      orNull(() => liveClockOf(job.value!, shop.value, infusion.value!, run.state, heard.value)),
  );

  const shapes = useShapes();
  /** s since first contact */
  const secondsNow = () => (clock.value ? (run.now() - clock.value.zero) / 1000 : 0);
  function answerBy(by: readonly SolvedShape[]) {
    if (!clock.value || !infusion.value || !job.value || by.length === 0) return null;
    return reforecast({
      ...{ shapes: by, infusion: infusion.value, clock: clock.value, now: secondsNow() },
      prior: priorOf(job.value, clock.value),
      gelDoubt: doubtOf(job.value).gelTime,
    });
  }
  const asPlanned = computed(() => {
    void pulse.value;
    return shapes.hasPlan.value ? answerBy(shapes.solved.value) : null;
  });
  /** Lines were turned otherwise than planned, and something still flows: it is run again with what was turned. */
  const turnedKey = computed(() => {
    if (!asPlanned.value || !infusion.value || !clock.value || !job.value) return null;
    const { factor } = asPlanned.value.likeliest;
    const flows = job.value.lines.some(
      (line) => line.kind === 'feed' && openingNow(infusion.value!, line) > 0,
    );
    return flows && isOtherwise(shapes.solved.value[0]!, infusion.value, clock.value, factor)
      ? JSON.stringify(infusion.value.turned.map(({ entryId }) => entryId))
      : null;
  });
  const went = shallowRef<{ readonly key: string; readonly shape: SolvedShape } | null>(null);
  watch(turnedKey, async (now) => {
    const question = asked();
    if (now === null || !question) return;
    try {
      const asking = { kind: 'again', asked: question } as const;
      const shape = await scheduler.want(`again ${run.run?.id} ${now}`, asking, { lane: 'board' });
      if (turnedKey.value === now) went.value = { key: now, shape };
    } catch (error) {
      if (!(error instanceof Cancelled)) went.value = null;
    }
  });
  const isRunAgain = computed(() => turnedKey.value !== null && went.value?.key === turnedKey.value);
  const answer = computed(() => (isRunAgain.value ? answerBy([went.value!.shape]) : asPlanned.value));
  watch(answer, (now) => {
    const isOpen = infusion.value?.openedAt != null;
    work.liveEnd = now && isOpen ? { last: now.last, gelTime: now.gelTime } : null;
  });
  onScopeDispose(() => (work.liveEnd = null));
  const resin = computed(() =>
    job.value && infusion.value && clock.value && answer.value
      ? resinLeftOf(job.value, shop.value, infusion.value, clock.value, answer.value)
      : null,
  );
  const endings = shallowRef<readonly Ending[]>([]);
  const shutAt = computed(() => endings.value.find(({ school }) => school === 'keepVacuum')?.shutAt ?? null);
  const plannedOpen = computed(() => (job.value && runConditionsOf(job.value, shop.value)?.openTime) ?? 0);
  const actions = computed(() =>
    job.value && infusion.value
      ? nextActions({
          ...{ job: job.value, infusion: infusion.value, answer: answer.value, resin: resin.value },
          ...{ shutAt: shutAt.value, plannedOpen: plannedOpen.value, show: shopStore.show },
          isPulled: run.state.valve === 'pull',
        })
      : [],
  );
  const drive = computed(() => clock.value?.drive.shares.at(-1) ?? null);
  const faults = computed(() =>
    infusion.value?.openedAt == null || infusion.value.allWetAt !== null
      ? []
      : suspected({
          ...{ answer: answer.value, resin: resin.value, drive: drive.value },
          bubblesAtInlet: infusion.value.bubbles.at(-1)?.body.where === 'inlet',
        }),
  );
  /** s that the bag holds when it is shut off, by the last drop test that was judged. */
  const holds = computed(() => {
    const judged = run.state.shutTimes.findLast((one) => one.judged !== null)?.judged;
    if (!judged || !job.value || pressure.value === null) return null;
    const { freeVolume, throughput } = judged;
    const { marks } = holdOf(job.value, shop.value, { from: pressure.value, freeVolume, throughput });
    return marks[0]?.soonest ?? null;
  });
  const cure = computed(() => {
    void pulse.value;
    return (
      job.value &&
      infusion.value &&
      orNull(() => cureClockOf(job.value!, shop.value, infusion.value!, run.state, run.now()))
    );
  });

  /** What a question about this fill is asked with. */
  const asked = () =>
    job.value && asPlanned.value
      ? {
          ...{ job: job.value, shop: shop.value, entries: run.state.entries, readings: heard.value },
          answer: { likeliest: asPlanned.value.likeliest, now: secondsNow() },
        }
      : null;

  /** Ways in which the part may be, solved in the background while somebody mixes. */
  function useShapes() {
    const solved = shallowRef<readonly SolvedShape[]>([]);
    const message = ref<string | null>(null);
    const wanted = ref(0);
    let current = new AbortController();
    onScopeDispose(() => current.abort());
    /** Somebody looks, or resin has met hardener: not for every card that is opened. */
    const isWanted = computed(() => isLookedAt() || infusion.value?.contactAt != null);
    const key = computed(() =>
      isWanted.value && job.value ? orNull(() => keyOf(problemOf(job.value!, shop.value))) : null,
    );

    async function solveAll(): Promise<void> {
      current.abort();
      const own = (current = new AbortController());
      const [laid, workshop] = [job.value, shop.value];
      solved.value = [];
      if (!laid || key.value === null || !runConditionsOf(laid, workshop)) return;
      const ids = shapeIdsOf(laid, workshop);
      const base = hashOf([key.value, laid.resin, laid.doubt, laid.materials]);
      wanted.value = ids.length;
      message.value = null;
      const found = new Map<string, SolvedShape>();
      const one = async (id: string) => {
        const asking = { kind: 'shape', asked: { job: laid, shop: workshop, id } } as const;
        const lane = id === 'plan' ? 'board' : 'doubt';
        const shape = await scheduler
          .want(`shape ${base} ${id}`, asking, { lane, signal: own.signal })
          .catch((error: unknown) => {
            // One that cannot be is left out; without the plan's own there is no answer.
            if (!(error instanceof Cancelled) && id === 'plan') message.value = (error as Error).message;
            return null;
          });
        if (own !== current || !shape) return;
        found.set(id, shape);
        solved.value = withoutCommon(ids.flatMap((each) => found.get(each) ?? []));
      };
      await Promise.all(ids.map(one));
    }
    watch(key, () => void solveAll(), { immediate: true });
    const hasPlan = computed(() => solved.value[0]?.id === 'plan');
    return { solved, message, wanted, hasPlan };
  }

  const part = createRehearsedPart(
    () => run.run,
    () => work.basis,
    () => run.entries,
    run.now,
  );

  return {
    ...{
      holds,
      job,
      shop,
      infusion,
      clock,
      answer,
      resin,
      actions,
      faults,
      cure,
      drive,
      endings,
      asked,
      readings,
    },
    ...{ pressure, gauge, plannedOpen, secondsNow, shutAt, isRunAgain },
    isRunningAgain: computed(() => turnedKey.value !== null && !isRunAgain.value),
    temperature: computed(() => shown(thermometer.value)),
    pot: computed(() => shown(potScale.value)),
    shapes: shapes.solved,
    shapesWanted: shapes.wanted,
    shapesMessage: shapes.message,
    part: proxyRefs(part),
  };
}

export type Live = ReturnType<typeof provideLive>;
const key: InjectionKey<Live> = Symbol('live');

/** @param isLookedAt a pane that shows the fill or the cure is open */
export function provideLive(isLookedAt: () => boolean) {
  const live = proxyRefs(createLive(isLookedAt));
  provide(key, live);
  return live;
}

export function useLive(): Live {
  const live = inject(key);
  if (!live) throw new Error('no run is live here: this belongs under the stage of a run');
  return live;
}
