import { orNull } from '@wick/core/model-error';
import { doubtOf } from '@wick/plan/forecast/doubt';
import { cureClockOf } from '@wick/plan/infusion/cure';
import { suspected } from '@wick/plan/infusion/day-faults';
import { infusionOf, openingNow } from '@wick/plan/infusion/infusion';
import { liveClockOf, priorOf, type BagReading } from '@wick/plan/infusion/live-clock';
import { nextActions } from '@wick/plan/infusion/next-action';
import type { SolvedShape } from '@wick/plan/infusion/problem-shapes';
import { isOtherwise, reforecast } from '@wick/plan/infusion/reforecast';
import { resinLeftOf } from '@wick/plan/infusion/resin-left';
import type { Ending } from '@wick/plan/infusion/stop';
import { runConditionsOf } from '@wick/plan/resin/run';
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
import { createShapes } from '../../compute/shapes.ts';
import { useCard, useRun, useScheduler } from '../../compute/use-desk.ts';
import { useShopStore } from '../../data/shop-store.ts';
import { useLiveReadings } from './live-readings.ts';
import { createMarking } from './marking.ts';
import { createRehearsedPart } from './rehearsed-part.ts';

/** The answer is worked out anew at every entry, and so often anyway, ms on the wall. */
const EVERY = 2000;

/** Where the fill stands: its clock, what the marks say, what is next. Made once for the stage, shared by its panes. */
function createLive(isLookedAt: () => boolean) {
  const run = useRun();
  const work = useCard();
  const scheduler = useScheduler();
  const shopStore = useShopStore();
  const pulse = ref(0);
  const timer = setInterval(() => (pulse.value += 1), EVERY);
  onScopeDispose(() => clearInterval(timer));

  const job = computed(() => work.laid ?? null);
  const shop = computed(() => work.basis?.shop ?? shopStore.shop);
  const infusion = computed(() => job.value && infusionOf(run.state, job.value));

  const ambient = computed(() => job.value && settle(job.value, shop.value)['shop.ambientPressure'].value);
  const { pressure, temperature, pot, readings } = useLiveReadings(
    ambient,
    computed(() => infusion.value?.openedAt ?? null),
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

  const shapes = createShapes(scheduler, () => {
    // While somebody looks, or resin has met hardener: not for every card that is opened.
    const isWanted = isLookedAt() || infusion.value?.contactAt != null;
    return isWanted && job.value ? { job: job.value, shop: shop.value } : null;
  });
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
  /** Lines were turned otherwise than planned, and something still flows: by what was turned it has to be run again. */
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
  const went = shallowRef<{
    readonly key: string;
    readonly marks: number;
    readonly shape: SolvedShape;
  } | null>(null);
  const isRunAgain = computed(() => turnedKey.value !== null && went.value?.key === turnedKey.value);
  const answer = computed(() => (isRunAgain.value ? answerBy([went.value!.shape]) : asPlanned.value));
  /** At every mark anew, by the factor that the run before came to. */
  const markCount = computed(() => infusion.value?.seen.length ?? 0);
  watch([turnedKey, markCount], async ([key, marks]) => {
    const question = asked();
    if (key === null || !question) return;
    try {
      const asking = { kind: 'again', asked: question } as const;
      const shape = await scheduler.want(`again ${run.run?.id} ${marks} ${key}`, asking, { lane: 'board' });
      if (turnedKey.value === key && markCount.value === marks) went.value = { key, marks, shape };
    } catch (error) {
      if (!(error instanceof Cancelled)) went.value = null;
    }
  });
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
    job.value && answer.value
      ? {
          ...{ job: job.value, shop: shop.value, entries: run.state.entries, readings: heard.value },
          answer: { likeliest: answer.value.likeliest, now: secondsNow() },
        }
      : null;

  const marking = createMarking(
    () => infusion.value,
    () => shapes.solved.value[0] ?? null,
  );
  const part = createRehearsedPart(
    () => run.run,
    () => work.basis,
    () => run.entries,
    run.now,
  );

  return {
    ...{ job, shop, infusion, clock, answer, resin, actions, faults, cure, drive, holds, endings, asked },
    ...{ readings, pressure, temperature, pot, plannedOpen, isRunAgain },
    isRunningAgain: computed(
      () => turnedKey.value !== null && !(isRunAgain.value && went.value?.marks === markCount.value),
    ),
    shapes: shapes.solved,
    shapesWanted: shapes.wanted,
    shapesMessage: shapes.message,
    marking: proxyRefs(marking),
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
