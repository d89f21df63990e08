import { formatClock } from '@wick/core/units/format';
import { computed, type Ref } from 'vue';
import { placeLabels, type LabelWish } from '../../board/labels.ts';
import { toScreen, type Viewport } from '../../board/viewport.ts';
import { useDoubt, useForecast, useProbes, useSession } from '../../compute/use-desk.ts';

const SIZE = 13;

/** A place that often comes last or stays dry, of the doubt's many runs. */
export const worstId = (index: number) => `worst ${index}`;

/** Names of lines, marks, probes and doubtful places, and where each stands so that none covers another. */
export function useLabels(view: Ref<Viewport>) {
  const job = useSession();
  const forecast = useForecast();
  const ensemble = useDoubt();
  const probes = useProbes();

  const arrivalOf = (id: string) => forecast.flow?.marks.find((mark) => mark.id === id)?.arrival;
  function markTime(id: string): string {
    const arrival = arrivalOf(id);
    if (arrival === undefined) return '';
    const time = forecast.timeOf(arrival);
    return Number.isFinite(time) ? formatClock(time) : 'not before gel';
  }
  /** Early and late minute of a mark: of the many runs where they were made, else as the whole stretches. */
  function markRange(id: string): string {
    const index = job.laid.marks.findIndex((mark) => mark.id === id);
    const spread = ensemble.isStale ? undefined : ensemble.summary?.marks[index];
    const arrival = arrivalOf(id);
    const likely = spread
      ? { from: spread.early, to: spread.late }
      : arrival === undefined
        ? null
        : forecast.likelyAt(arrival);
    if (!likely || !Number.isFinite(likely.from)) return '';
    const edge = (time: number) => (Number.isFinite(time) ? `${Math.round(time / 60)}` : 'gel');
    return `(${edge(likely.from)}–${edge(likely.to)})`;
  }

  /** The worst two, where the runs are of the job as it stands. */
  const worst = computed(() => (ensemble.isStale ? [] : (ensemble.summary?.worstPlaces.slice(0, 2) ?? [])));
  const wishes = computed((): LabelWish[] => {
    const { lines, marks } = job.laid;
    const screen = (p: { x: number; y: number }) => toScreen(view.value, p);
    return [
      ...lines.map(({ id, name, points }) => ({
        id,
        at: points.map(screen).reduce((top, p) => (p.y < top.y ? p : top)),
        words: name,
        size: SIZE,
        away: 12,
      })),
      ...marks.map(({ id, name, x, y }) => ({
        id,
        at: screen({ x, y }),
        words: [name, markTime(id), markRange(id)].filter(Boolean).join(' '),
        size: SIZE,
        away: 11,
      })),
      ...probes.probes.map(({ id, name, x, y }) => ({
        id,
        at: screen({ x, y }),
        words: name,
        size: SIZE,
        away: 8,
      })),
      ...worst.value.map(({ place, share }, i) => ({
        id: worstId(i),
        at: screen(place),
        words: `last or dry here ${Math.round(100 * share)} in 100`,
        size: SIZE,
        away: 25,
      })),
    ];
  });
  const places = computed(() => placeLabels(wishes.value));
  const labels = computed(
    () =>
      new Map(
        wishes.value.map(({ id, words, at }) => {
          const { x, y, anchor } = places.value.get(id)!;
          return [id, { words, x, y, anchor, dx: x - at.x, dy: y - at.y }];
        }),
      ),
  );
  return { labels, worst };
}

/** A name with its words and place: on the board, and from its figure. */
export type Label = ReturnType<typeof useLabels>['labels']['value'] extends Map<string, infer T> ? T : never;
export type Labels = ReadonlyMap<string, Label>;
