import type { Outcome } from '@wick/contract/job/result';
import type { FlowForecast } from '@wick/core/flow/forecast';
import { orNull } from '@wick/core/model-error';
import { finenessOf, verdictOf } from '@wick/plan/forecast/assess';
import { outcomeKeyOf } from '@wick/plan/forecast/key';
import { outcomeOf } from '@wick/plan/forecast/outcome';
import { laidOut, type LaidJob } from '@wick/plan/job/laid';
import { adoptLayout, copyLayout, removeLayout, renameLayout } from '@wick/plan/layout/layouts';
import { computed, markRaw, onScopeDispose, ref, shallowRef, watch } from 'vue';
import type { Desk } from './desk.ts';
import { flowTask } from './forecast-runs.ts';
import type { Forecast } from './forecast.ts';
import type { ResultsShelf } from './results.ts';
import { Cancelled } from './scheduler.ts';

/** One layout of the job, ready to be shown beside the others. */
export interface LayoutEntry {
  readonly id: string;
  readonly letter: string;
  readonly name: string;
  readonly isCurrent: boolean;
  readonly job: LaidJob;
  /** What it came to; out of date when the job has changed under it since. */
  readonly outcome: Outcome | null;
  readonly isStale: boolean;
  readonly flow: FlowForecast | null;
}

/** The layouts of the open job: pictures of all of them from coarse runs, and what each comes to. */
export function createLayouts({ session, shop, scheduler }: Desk, forecast: Forecast, results: ResultsShelf) {
  /** Coarse runs by layout. */
  const flows = shallowRef<ReadonlyMap<string, FlowForecast>>(new Map());
  const message = ref<string | null>(null);
  const running = ref(0);
  let wanted = new AbortController();

  const keyIn = (job: LaidJob): string | null => orNull(() => outcomeKeyOf(job, shop.shop));

  const entries = computed<LayoutEntry[]>(() =>
    session.document.layouts.map(({ id, letter, name }) => {
      const job = laidOut(session.document, id);
      const isCurrent = id === session.laid.layout.id;
      const result = results.byLayout.value.get(id) ?? null;
      return {
        id,
        letter,
        name,
        isCurrent,
        job,
        outcome: result?.outcome ?? null,
        isStale: result !== null && result.key !== keyIn(job),
        flow: (isCurrent ? forecast.flow.value : null) ?? flows.value.get(id) ?? null,
      };
    }),
  );

  /** Runs every layout that has no picture or no result yet, and notes what it comes to. */
  async function refresh() {
    stop();
    message.value = null;
    const due = entries.value.filter(
      ({ isCurrent, flow, outcome, isStale }) => !isCurrent && (!flow || !outcome || isStale),
    );
    const own = (wanted = new AbortController());
    running.value = due.length;
    await Promise.all(due.map((entry) => workOut(entry, own.signal)));
  }

  async function workOut({ id, letter, job }: LayoutEntry, signal: AbortSignal) {
    try {
      const { key, task } = flowTask(job, shop.shop, finenessOf(job));
      const flow = markRaw(await scheduler.want(key, task, { lane: 'board', signal }));
      flows.value = new Map([...flows.value, [id, flow]]);
      const verdict = verdictOf(job, shop.shop, flow);
      if (verdict) note(job, outcomeOf(job, shop.shop, flow, verdict));
    } catch (error) {
      if (!(error instanceof Cancelled)) message.value = `Layout ${letter}: ${(error as Error).message}`;
    } finally {
      if (!signal.aborted) running.value = Math.max(0, running.value - 1);
    }
  }

  function note(job: LaidJob, outcome: Outcome) {
    void results.note({ layoutId: job.layout.id, key: outcomeKeyOf(job, shop.shop), outcome });
  }

  // What the layout worked on comes to, once its fine forecast is there and the job stands as it was forecast.
  watch([forecast.solved, forecast.verdict, () => session.saveState], ([solved, verdict, saveState]) => {
    if (!solved?.isFine || !verdict || !forecast.isUpToDate.value || saveState !== 'saved') return;
    note(session.laid, outcomeOf(session.laid, shop.shop, solved.flow, verdict));
  });

  function stop() {
    wanted.abort();
    running.value = 0;
  }
  onScopeDispose(stop);

  return {
    entries,
    message,
    running,
    refresh,
    stop,
    copy: (name = '') => session.apply(copyLayout(name), 'copy of the layout'),
    adopt: (id: string) => session.apply(adoptLayout(id), 'change of layout'),
    remove: (id: string) => session.apply(removeLayout(id), 'deletion of a layout'),
    rename: (id: string, name: string) => session.apply(renameLayout(id, name), 'name of a layout'),
  };
}
