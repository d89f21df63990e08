import type { CauseEdits } from '@wick/contract/shop';
import { orNull } from '@wick/core/model-error';
import { infusionOf } from '@wick/plan/infusion/infusion';
import { hashOf } from '@wick/plan/forecast/key';
import { observed, type Answers } from '@wick/plan/review/causes/observe';
import { causesOf, type CauseBook } from '@wick/plan/review/causes/rank-run';
import { comparedOf } from '@wick/plan/review/measured';
import { evidenceOf } from '@wick/plan/review/evidence';
import { fillReviewOf, fillSpanOf } from '@wick/plan/review/fill-review';
import { findingsOf } from '@wick/plan/review/findings';
import { lessonsOf } from '@wick/plan/review/lessons';
import type { Share } from '@wick/plan/review/shares';
import { isOf } from '@wick/plan/run/state';
import { settle } from '@wick/plan/settle';
import { computed, inject, provide, proxyRefs, shallowRef, watch, type InjectionKey } from 'vue';
import { Cancelled } from '../../compute/scheduler.ts';
import { createShapes } from '../../compute/shapes.ts';
import { useCard, useRun, useScheduler } from '../../compute/use-desk.ts';
import { useBookStore } from '../../data/book-store.ts';
import { useShopStore } from '../../data/shop-store.ts';
import { useBagReadings } from './bag-readings.ts';

/** What a part came to: worked out of its log, its readings and its plan. Made once for the stage, shared by its panes. */
function createReview() {
  const run = useRun();
  const work = useCard();
  const scheduler = useScheduler();
  const shopStore = useShopStore();
  const book = useBookStore();
  void book.load();

  const job = computed(() => work.laid ?? null);
  const shop = computed(() => work.basis?.shop ?? shopStore.shop);
  const ambient = computed(() => job.value && settle(job.value, shop.value)['shop.ambientPressure'].value);
  const span = computed(() => job.value && fillSpanOf(infusionOf(run.state, job.value)));
  const readings = useBagReadings(ambient, span);

  const shapes = createShapes(scheduler, () =>
    span.value !== null && job.value ? { job: job.value, shop: shop.value } : null,
  );
  const isWorking = computed(() => span.value !== null && shapes.solved.value.length < shapes.wanted.value);
  const fill = computed(() =>
    job.value && shapes.hasPlan.value
      ? orNull(() =>
          fillReviewOf({
            ...{ job: job.value!, shop: shop.value, state: run.state },
            ...{ readings: readings.value, shapes: shapes.solved.value },
          }),
        )
      : null,
  );
  const findings = computed(() => findingsOf(run.state));
  const compared = computed(() =>
    job.value ? comparedOf(job.value, shop.value, run.state, fill.value) : [],
  );
  const answers = computed((): Answers =>
    job.value
      ? observed({
          ...{ job: job.value, shop: shop.value, state: run.state, readings: readings.value },
          ...{ fill: fill.value, compared: compared.value },
        })
      : {},
  );
  /** The workshop's own edits as they are today, and its parts so far without this one. */
  const causeBook = computed((): CauseBook => ({
    edits: shopStore.shop.causes as CauseEdits,
    before: (book.lines ?? []).flatMap(({ runId, figures: { causeId, answers: given } }) =>
      causeId !== null && runId !== run.run?.id ? [{ causeId, answers: given }] : [],
    ),
  }));
  const causes = computed(() => causesOf(answers.value, causeBook.value));
  /** Something went wrong, as far as anybody has said. */
  const hasTrouble = computed(
    () =>
      findings.value.length > 0 ||
      compared.value.some(({ isInside, group }) => isInside === false && group !== 'fill') ||
      answers.value.wetInTime === 'no',
  );
  const lessons = computed(() => lessonsOf(run.state));
  const booked = computed(() => run.state.entries.filter(isOf('booked')).at(-1) ?? null);

  const shares = shallowRef<readonly Share[]>([]);
  const places = computed(() => fill.value?.infusion.seen.map(({ x, y }) => ({ x, y })) ?? []);
  watch(
    [() => shapes.hasPlan.value, () => places.value.length],
    async ([hasPlan]) => {
      if (!hasPlan || !job.value) return;
      const request = { job: job.value, shop: shop.value, places: places.value };
      try {
        const key = `shares ${hashOf([request.job.materials, request.job.lines, request.places])}`;
        shares.value = await scheduler.want(key, { kind: 'shares', request }, { lane: 'board' });
      } catch (error) {
        if (!(error instanceof Cancelled)) shares.value = [];
      }
    },
    { immediate: true },
  );
  const evidence = computed(() =>
    job.value ? evidenceOf(job.value, shop.value, run.state, fill.value, shares.value) : [],
  );

  return {
    ...{ job, shop, fill, findings, compared, answers, causes, causeBook, hasTrouble, lessons, booked },
    ...{ evidence, isWorking },
    wanted: shapes.wanted,
    solvedCount: computed(() => shapes.solved.value.length),
  };
}

export type Review = ReturnType<typeof provideReview>;
const key: InjectionKey<Review> = Symbol('review');

export function provideReview() {
  const review = proxyRefs(createReview());
  provide(key, review);
  return review;
}

export function useReview(): Review {
  const review = inject(key);
  if (!review) throw new Error('no part is reviewed here: this belongs under the stage of a review');
  return review;
}
