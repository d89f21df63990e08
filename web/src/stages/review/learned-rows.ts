import type { LearnedSide } from '@wick/contract/material/learned';
import type { Mould } from '@wick/contract/mould';
import { factorIn, withLearned } from '@wick/plan/review/learned-values';
import { offersOf, type Offer } from '@wick/plan/review/learning';
import {
  mouldOffersOf,
  mouldValueWords,
  withMouldLearned,
  type MouldOffer,
} from '@wick/plan/review/mould-learning';
import { learnedNames, mouldSideNames } from '@wick/plan/review/names';
import { isOf } from '@wick/plan/run/state';
import { computed } from 'vue';
import { useRun } from '../../compute/use-desk.ts';
import { useBookStore } from '../../data/book-store.ts';
import { useLibraryStore } from '../../data/library-store.ts';
import { useMouldStore } from '../../data/mould-store.ts';
import type { LearnedRow } from './LearnedTable.vue';
import { useReview } from './review.ts';

const percent = (share: number) => `${Math.round(100 * Math.abs(share))} %`;
const range = (doubt: number) => `x/÷ ${doubt.toFixed(2)}`;
const timesOf = ({ runIds: { length } }: Pick<Offer, 'runIds'>) =>
  length === 1 ? 'once' : length === 2 ? 'twice' : `${length} times`;

/** "ran 20 % slower here, twice", in the words of each side. */
function saidOf({ side, factor, runIds }: Offer): string {
  const by = percent(factor - 1);
  const words: Readonly<Record<LearnedSide, readonly [string, string]>> = {
    permeability: [`lets resin run ${by} worse here`, `lets resin run ${by} better here`],
    viscosity: [`is ${by} thinner here`, `is ${by} thicker here`],
    gelTime: [`gels ${by} sooner here`, `gels ${by} later here`],
    compaction: [`packs ${by} looser here`, `packs ${by} tighter here`],
  };
  if (Math.abs(factor - 1) < 0.005) return `is as the library has it, ${timesOf({ runIds })}`;
  return `${words[side][factor < 1 ? 0 : 1]}, ${timesOf({ runIds })}`;
}

function saidOfMould(offer: MouldOffer): string {
  if (offer.side === 'leak') return `its bags were tested, ${timesOf(offer)}`;
  const by = percent(offer.value - 1);
  if (Math.abs(offer.value - 1) < 0.005) return `its parts draw what was planned, ${timesOf(offer)}`;
  return `its parts draw ${by} ${offer.value < 1 ? 'less' : 'more'} than planned, ${timesOf(offer)}`;
}

/** "1 to 4, 6" */
function spansOf(numbers: readonly number[]): string {
  const spans: [number, number][] = [];
  for (const n of numbers) {
    const last = spans.at(-1);
    if (last && last[1] === n - 1) last[1] = n;
    else spans.push([n, n]);
  }
  return spans.map(([from, to]) => (from === to ? `${from}` : `${from} to ${to}`)).join(', ');
}

const keyOf = (of: string, side: string, runIds: readonly string[]) =>
  `${of} ${side} ${[...runIds].sort().join()}`;

/** What the parts so far say of the library and of the mould, one row of a table each. */
export function useLearnedRows() {
  const run = useRun();
  const review = useReview();
  const library = useLibraryStore();
  const moulds = useMouldStore();
  const book = useBookStore();

  /** Those in the book, and this one as it stands now. A rehearsal teaches nothing but itself. */
  const told = computed(() => [
    ...(book.lines ?? [])
      .filter(({ runId }) => runId !== run.run?.id)
      .map(({ runId, evidence }) => ({ runId, evidence })),
    ...(run.run?.kind === 'part' && review.evidence.length > 0
      ? [{ runId: run.run.id, evidence: review.evidence }]
      : []),
  ]);
  /** Left as they were, with these parts behind them. */
  const refused = computed(
    () =>
      new Set([
        ...run.state.entries
          .filter(isOf('learned'))
          .flatMap(({ body }) =>
            body.is === 'refused' ? [keyOf(body.materialId, body.side, body.runIds)] : [],
          ),
        ...run.state.entries
          .filter(isOf('mouldLearned'))
          .flatMap(({ body }) =>
            body.is === 'refused' ? [keyOf(body.mouldId, body.side, body.runIds)] : [],
          ),
      ]),
  );
  const mould = computed(() => moulds.find(review.job?.mould?.id)?.mould ?? null);

  /** "Kerb plate 1 to 4, 6; this part" */
  function partsOf({ runIds }: Pick<Offer, 'runIds'>): string {
    const known = (book.lines ?? []).filter(({ runId }) => runIds.includes(runId) && runId !== run.run?.id);
    const jobs = [...new Set(known.map(({ jobName }) => jobName))].map((name) => {
      const numbers = known.filter(({ jobName }) => jobName === name).map(({ number }) => number);
      return `${name} ${spansOf(numbers.sort((a, b) => a - b))}`;
    });
    return [...jobs, ...(run.run && runIds.includes(run.run.id) ? ['this part'] : [])].join('; ');
  }

  function ofLibrary(offer: Offer): LearnedRow {
    const { materialId, side, name, runIds, factor, doubt, now, isNews, scatter } = offer;
    const key = keyOf(materialId, side, runIds);
    const found = library.find(materialId);
    return {
      ...{ key, name, said: saidOf(offer), side: learnedNames[side], parts: partsOf(offer) },
      now: [`× ${now.factor.toFixed(2)}`, range(now.doubt)],
      next: [`× ${factor.toFixed(2)}`, range(doubt)],
      differ: `runs differ by ${range(scatter)}`,
      isOpen: isNews && !refused.value.has(key),
      isTaken:
        found !== null &&
        (factorIn(found.material, side) !== 1 || found.material.learned?.[side] !== undefined),
      async settle(is) {
        if (!found) return;
        const taken = is === 'taken' ? offer : null;
        if (is !== 'refused' && !(await library.save(withLearned(found.material, side, taken)))) return;
        await run.say({
          ...{ kind: 'learned', materialId, side, title: name, is },
          ...{ factor: taken ? factor : 1, doubt, runIds: [...runIds] },
        });
      },
    };
  }

  function ofMould(offer: MouldOffer, own: Mould): LearnedRow {
    const { side, value, doubt, runIds, now, isNews, scatter } = offer;
    const key = keyOf(own.id, side, runIds);
    return {
      ...{ key, name: own.name, said: saidOfMould(offer), side: mouldSideNames[side], parts: partsOf(offer) },
      now: now ? [mouldValueWords(side, now.value), range(now.doubt)] : ['not known'],
      next: [mouldValueWords(side, value), range(doubt)],
      differ: `parts differ by ${range(scatter)}`,
      isOpen: isNews && !refused.value.has(key),
      isTaken: now !== null,
      async settle(is) {
        const taken = is === 'taken' ? offer : null;
        if (is !== 'refused' && !(await moulds.save(withMouldLearned(own, side, taken)))) return;
        await run.say({
          ...{ kind: 'mouldLearned', mouldId: own.id, side, title: own.name, is },
          ...{ value, doubt, runIds: [...runIds] },
        });
      },
    };
  }

  return computed((): LearnedRow[] => [
    ...offersOf(library.materials, told.value).map(ofLibrary),
    ...(mould.value
      ? mouldOffersOf(mould.value, book.lines ?? []).map((offer) => ofMould(offer, mould.value!))
      : []),
  ]);
}
