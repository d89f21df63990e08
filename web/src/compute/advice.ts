import type { Job } from '@wick/contract/job/job';
import type { LayoutScore } from '@wick/core/advice/score';
import { searchLayouts, type Proposal } from '@wick/core/advice/search';
import type { FlowForecast } from '@wick/core/flow/forecast';
import { layDrafts, layoutWords, reasonWords, scoreOf, whyNoAdvice } from '@wick/plan/advice/score';
import { remediesFor } from '@wick/plan/advice/remedies';
import { findRepairs, type Repair } from '@wick/plan/advice/repairs';
import { COARSE, finenessOf, verdictOf, type Resolution } from '@wick/plan/forecast/assess';
import { hashOf } from '@wick/plan/forecast/key';
import { isSound } from '@wick/plan/forecast/words';
import { outcomeOf } from '@wick/plan/forecast/outcome';
import { laidOut, type LaidJob } from '@wick/plan/job/laid';
import { addLayout, hasRoomForLayout } from '@wick/plan/layout/layouts';
import { partShapeOf } from '@wick/plan/layout/fit';
import { settle } from '@wick/plan/settle';
import { computed, markRaw, onScopeDispose, ref, shallowRef } from 'vue';
import type { Desk } from './desk.ts';
import { flowTask } from './forecast-runs.ts';
import { Cancelled } from './scheduler.ts';

/** A proposed layout with its picture. */
export interface Suggestion {
  readonly key: string;
  readonly words: string;
  readonly reason: string;
  readonly score: LayoutScore;
  readonly job: LaidJob;
  readonly flow: FlowForecast | null;
}

/** Repairs that are simulated again, more finely. */
const SHOWN_REPAIRS = 7;
/** Sizes of a repair that are tried on, from the smallest that a quick run calls enough. */
const MOST_SIZES = 4;
const NAME_LENGTH = 40;

/** Suggested layouts, and what would mend the one there is: simulated behind the board, with progress and cancel. */
export function createAdvice({ session, shop, library, scheduler }: Desk) {
  const suggestions = shallowRef<readonly Suggestion[]>([]);
  const repairs = shallowRef<readonly Repair[] | null>(null);
  /** What is running, how far it is, 0-1, and how many runs it has made. */
  const working = ref<'suggest' | 'mend' | null>(null);
  const progress = ref(0);
  const simulated = ref(0);
  const message = ref<string | null>(null);
  /** Mark of the job that the answers are of. */
  const madeFor = ref('');
  let current = new AbortController();

  /** Everything a suggestion depends on: the job without what is laid on it. */
  const mark = computed(() => {
    const { part, laminate, zones, resin, vacuum, doubt, materials } = session.laid;
    const own = zones.filter(({ purpose }) => purpose === 'part');
    return hashOf([part, laminate, own, resin, vacuum, doubt, materials, settle(session.laid, shop.shop)]);
  });
  const isStale = computed(() => madeFor.value !== '' && madeFor.value !== mark.value);

  function start(what: 'suggest' | 'mend'): AbortSignal | null {
    cancel();
    message.value = whyNoAdvice(session.laid);
    if (message.value) return null;
    working.value = what;
    progress.value = simulated.value = 0;
    madeFor.value = mark.value;
    current = new AbortController();
    return current.signal;
  }

  function cancel() {
    current.abort();
    working.value = null;
  }
  onScopeDispose(cancel);

  /** Runs one piece of advice to its end, its failure to a sentence. */
  async function work(what: 'suggest' | 'mend', todo: (signal: AbortSignal) => Promise<void>) {
    const signal = start(what);
    if (!signal) return;
    try {
      await todo(signal);
    } catch (error) {
      if (!(error instanceof Cancelled) && !signal.aborted) message.value = (error as Error).message;
    }
    if (!signal.aborted) cancel();
  }

  function score(job: LaidJob, how: 'quick' | 'thorough', signal: AbortSignal) {
    const task = { kind: 'score', job, shop: shop.shop, how } as const;
    return scheduler.want(`score ${hashOf(task)}`, task, { lane: 'advice', signal });
  }

  function picture(job: LaidJob, signal: AbortSignal, how: Resolution = COARSE) {
    const { key, task } = flowTask(job, shop.shop, how);
    return scheduler.want(key, task, { lane: 'advice', signal });
  }

  const suggest = () =>
    work('suggest', async (signal) => {
      suggestions.value = [];
      const job = session.laid;
      const found = await searchLayouts({
        part: partShapeOf(job),
        simulate: (drafts, how) => score(layDrafts(job, drafts), how, signal),
        onProgress: ({ done, simulated: count, best }) => {
          if (signal.aborted) return;
          progress.value = 0.95 * done;
          simulated.value = count;
          show(job, best);
        },
      });
      if (signal.aborted) return;
      show(job, found);
      await Promise.all(
        suggestions.value.map(async ({ job: laid }) => {
          const flow = markRaw(await picture(laid, signal));
          suggestions.value = suggestions.value.map((item) => (item.job === laid ? { ...item, flow } : item));
        }),
      );
    });

  function show(job: LaidJob, best: readonly Proposal[]) {
    const scores = best.map(({ score: own }) => own);
    suggestions.value = best.map(({ request, drafts, score: own }) => {
      const key = JSON.stringify(drafts);
      const old = suggestions.value.find((item) => item.key === key);
      return {
        key,
        words: layoutWords(request),
        reason: reasonWords(own, scores),
        score: own,
        job: old?.job ?? layDrafts(job, drafts),
        flow: old?.flow ?? null,
      };
    });
  }

  const mend = () =>
    work('mend', async (signal) => {
      repairs.value = null;
      const { document } = session;
      // Its own, not the board's, which may be that of a moment ago.
      const flow = await picture(session.laid, signal);
      const remedies = remediesFor(session.laid, {
        shop: shop.shop,
        materials: library.materials,
        lastPlace: flow.dryRegions[0]?.place ?? flow.lastPlace,
        show: shop.show,
        thinHoses: flow.findings.flatMap((f) => (f.kind === 'hoseTakes' ? [f.lineId] : [])),
      });
      const found = await findRepairs(
        document,
        remedies,
        (changed) => score(changed, 'quick', signal),
        (done) => (progress.value = 0.8 * done),
      );
      if (signal.aborted) return;
      const confirmed = await Promise.all(
        found.slice(0, SHOWN_REPAIRS).map((repair) => confirm(document, repair, signal)),
      );
      if (signal.aborted) return;
      const known = confirmed.filter((repair) => repair !== null);
      repairs.value = [...known.filter((r) => r.isEnough), ...known.filter((r) => !r.isEnough)];
    });

  /** What is called enough is so on the board's own fine forecast, which is then there already when it is done. */
  async function confirm(document: Job, repair: Repair, signal: AbortSignal): Promise<Repair | null> {
    let best: Repair | null = null;
    for (const size of [repair, ...repair.larger].slice(0, MOST_SIZES)) {
      const tried = await judged(document, { ...repair, ...size }, signal);
      if (tried?.isEnough) return tried;
      best ??= tried;
      if (!repair.isEnough) break;
    }
    return best;
  }

  /** Simulated as the board's quick forecast does, and where that is enough as its fine one does. */
  async function judged(
    document: Job,
    repair: Repair,
    signal: AbortSignal,
    how: Resolution = COARSE,
  ): Promise<Repair | null> {
    const changed = laidOut(repair.apply(document));
    const run = await picture(changed, signal, how);
    const verdict = verdictOf(changed, shop.shop, run);
    if (!verdict) return null;
    const own = scoreOf(changed, shop.shop, outcomeOf(changed, shop.shop, run, verdict));
    const isEnough = isSound(verdict.band);
    return isEnough && how === COARSE
      ? judged(document, repair, signal, finenessOf(changed))
      : { ...repair, score: own, isEnough };
  }

  /** Keeps the present layout under its letter and goes on with the suggested one under the next; false when there is no room. */
  function takeUp({ job, words }: Suggestion) {
    if (!hasRoomForLayout(session.document)) {
      message.value = 'There is no room for a further layout. Delete one under Layouts first.';
      return false;
    }
    session.apply(addLayout(job, words.slice(0, NAME_LENGTH)), 'suggested layout');
    return true;
  }

  /** Does it, once: the other changes were simulated on the job as it was. */
  function apply(repair: Repair) {
    session.apply(repair.apply, repair.words);
    repairs.value = null;
  }

  return {
    suggestions,
    repairs,
    working,
    progress,
    simulated,
    message,
    isStale,
    suggest,
    mend,
    cancel,
    takeUp,
    apply,
  };
}
