import type { LayoutScore } from '@wick/core/advice/score';
import { searchLayouts, type Proposal } from '@wick/core/advice/search';
import type { FlowForecast } from '@wick/core/flow/forecast';
import { layDrafts, layoutWords, reasonWords } from '@wick/plan/advice/score';
import type { LaidJob } from '@wick/plan/job/laid';
import { addLayout, hasRoomForLayout } from '@wick/plan/layout/layouts';
import { partShapeOf } from '@wick/plan/layout/fit';
import { markRaw, shallowRef } from 'vue';
import type { AdviceWork } from './advice-work.ts';
import type { Desk } from './desk.ts';

/** A proposed layout with its picture. */
export interface Suggestion {
  readonly key: string;
  readonly words: string;
  readonly reason: string;
  readonly score: LayoutScore;
  readonly job: LaidJob;
  readonly flow: FlowForecast | null;
}

const NAME_LENGTH = 40;

/** Layouts that are suggested, searched for behind the board. */
export function createSuggestions({ session }: Desk, { work, score, picture, ...state }: AdviceWork) {
  const suggestions = shallowRef<readonly Suggestion[]>([]);

  const suggest = () =>
    work('suggest', async (signal) => {
      suggestions.value = [];
      const job = session.laid;
      const found = await searchLayouts({
        part: partShapeOf(job),
        simulate: (drafts, how) => score(layDrafts(job, drafts), how, signal),
        onProgress: ({ done, simulated: count, best }) => {
          if (signal.aborted) return;
          state.progress.value = 0.95 * done;
          state.simulated.value = count;
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

  /** Keeps the present layout under its letter and goes on with the suggested one under the next; false when there is no room. */
  function takeUp({ job, words }: Suggestion) {
    if (!hasRoomForLayout(session.document)) {
      state.message.value = 'There is no room for a further layout. Delete one under Layouts first.';
      return false;
    }
    session.apply(addLayout(job, words.slice(0, NAME_LENGTH)), 'suggested layout');
    return true;
  }

  return { suggestions, suggest, takeUp };
}
