import { mostThroughput } from '@wick/core/vacuum/drop-test';
import { leakWords, rangeWords } from '@wick/plan/vacuum/words';
import { computed, proxyRefs } from 'vue';
import { useRun } from '../../compute/use-desk.ts';
import { useBench } from './bench.ts';

/** The leak that is reckoned with: as tested, else the most that this part takes. Pa m3/s. */
export function useLeak() {
  const bench = useBench();
  const run = useRun();
  const judged = computed(
    () =>
      run.state.shutTimes
        .map((test) => test.judged)
        .filter((own) => own !== null)
        .at(-1) ?? null,
  );
  const most = computed(() => (bench.budget.value ? mostThroughput(bench.budget.value) : 1e-3));
  return proxyRefs({
    low: computed(() => (judged.value ? judged.value.throughput.low : 0)),
    high: computed(() => judged.value?.throughput.high ?? most.value),
    words: computed(() =>
      judged.value
        ? `Leak by the last test: ${rangeWords(judged.value.throughput, leakWords)}.`
        : `Not tested yet: the most that this part takes is reckoned with, ${leakWords(most.value)}.`,
    ),
  });
}
