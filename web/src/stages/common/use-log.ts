import { isQuiet, logWords } from '@wick/plan/run/log-words';
import type { LogWriting } from '@wick/plan/run/log-writing';
import { computed } from 'vue';
import { useCard, useRun } from '../../compute/use-desk.ts';
import { useInstruments } from '../../data/instruments.ts';
import { useShopStore } from '../../data/shop-store.ts';

/** The log of the run in words, in the order in which things happened. */
export function useLog() {
  const run = useRun();
  const work = useCard();
  const shop = useShopStore();
  const { list } = useInstruments();
  const byId = computed(() => new Map(run.entries.map((entry) => [entry.id, entry])));
  const writing = computed((): LogWriting => ({
    show: shop.show,
    instrumentName: (id) => list.value.find((one) => one.id === id)?.name ?? 'Instrument',
    lineName: (id) => work.laid?.lines.find((line) => line.id === id)?.name ?? 'A line',
    find: (id) => byId.value.get(id),
  }));
  const struck = computed(
    () => new Set(run.entries.flatMap(({ body }) => (body.kind === 'struck' ? [body.entryId] : []))),
  );
  const lines = computed(() =>
    run.entries
      .map((entry) => ({
        ...{ entry, words: logWords(entry, writing.value) },
        ...{ isStruck: struck.value.has(entry.id), isSmall: isQuiet(entry) },
      }))
      .sort((a, b) => Date.parse(a.entry.at) - Date.parse(b.entry.at) || a.entry.order - b.entry.order),
  );
  return { lines, writing };
}
