import type { Job, JobAction, JobLayout, JobLine } from '@wick/contract/job/job';
import type { MaterialOf } from '@wick/contract/materials';
import { distance, nearestOnSegment, type Point } from '@wick/core/geometry/polygon';
import { roundPoint, shift, type Edit } from '../job/edits.ts';
import { newId, nextName } from '../job/ids.ts';
import { currentLayout } from '../job/laid.ts';
import { keepUsed } from '../job/materials.ts';

/** Changes the layout that is worked on. */
export const onLayout =
  (change: (layout: JobLayout) => Partial<JobLayout>): Edit =>
  (job) => {
    const { id } = currentLayout(job);
    return {
      ...job,
      layouts: job.layouts.map((layout) => (layout.id === id ? { ...layout, ...change(layout) } : layout)),
    };
  };

/** Changes every line of the layout that is worked on, or leaves it as it is. */
export const onLines = (change: (line: JobLine) => JobLine): Edit =>
  onLayout(({ lines }) => ({ lines: lines.map(change) }));

export const updateLine = (id: string, changes: Partial<JobLine>): Edit =>
  onLines((line) => (line.id === id ? { ...line, ...changes } : line));

export const moveLine = (id: string, by: Point): Edit =>
  onLines((line) => (line.id === id ? { ...line, points: line.points.map((p) => shift(p, by)) } : line));

export const moveLinePoint = (id: string, index: number, to: Point): Edit =>
  onLines((line) =>
    line.id === id
      ? { ...line, points: line.points.map((p, i) => (i === index ? roundPoint(to) : p)) }
      : line,
  );

/** Puts a corner into the segment of a line that is nearest to a place. */
export const bendLine = (lineId: string, at: Point): Edit =>
  onLines((line) => {
    if (line.id !== lineId || line.points.length < 2) return line;
    const away = line.points.slice(1).map((b, i) => distance(at, nearestOnSegment(at, line.points[i]!, b)));
    const segment = away.indexOf(Math.min(...away));
    const points = [...line.points.slice(0, segment + 1), roundPoint(at), ...line.points.slice(segment + 1)];
    return { ...line, points };
  });

export const addLine = (line: JobLine): Edit => onLayout(({ lines }) => ({ lines: [...lines, line] }));

/** A line goes with every action that waits for it. */
export const removeLine =
  (id: string): Edit =>
  (job) =>
    withoutTriggersOn(id, onLayout(({ lines }) => ({ lines: lines.filter((line) => line.id !== id) }))(job));

/** Actions that wait for a line, mark or zone that goes, go with it, in every layout. */
export function withoutTriggersOn(id: string, job: Job): Job {
  const stays = ({ when }: JobAction) =>
    (!('what' in when) || when.what !== id) && (when.kind !== 'zoneFull' || when.zone !== id);
  return {
    ...job,
    layouts: job.layouts.map((layout) => ({
      ...layout,
      lines: layout.lines.map((line) => ({ ...line, actions: line.actions.filter(stays) })),
    })),
  };
}

const words = { feed: 'Feed', vent: 'Vent', race: 'Race edge' };
/** Usual bore of a line, and gap of a race, m: common practice, no source. */
const USUAL_BORE = { feed: 0.012, vent: 0.012, race: 0.001 };

/** Opens or shuts when the front has passed a line, by its middle, or a mark. */
export const whenPassed = (what: string, opening: number, id: string = newId()): JobAction => ({
  id,
  opening,
  when: { kind: 'passed', what, at: 'middle', distance: 0, delay: 0 },
});

/** A new line named after its kind and number: "Feed 2". The first feed opens at the start, further ones when the front has passed them. */
export function newLine(
  job: Job,
  kind: JobLine['kind'],
  points: readonly Point[],
  id: string = newId(),
): JobLine {
  const { lines } = currentLayout(job);
  const waits = kind === 'feed' && lines.some((line) => line.kind === 'feed');
  return {
    ...bareLine(kind, points, id),
    name: nextName(words[kind], lines),
    startsOpen: !waits,
    actions: waits ? [whenPassed(id, 1)] : [],
  };
}

/** A line of which nothing is known but where it lies. */
export const bareLine = (kind: JobLine['kind'], points: readonly Point[], id: string = newId()): JobLine => ({
  id,
  kind,
  name: words[kind],
  points: points.map(roundPoint),
  bore: USUAL_BORE[kind],
  hoseLength: null,
  hoseBore: null,
  stockId: null,
  hoseId: null,
  tee: null,
  stationId: null,
  inlet: 0.5,
  potLevel: null,
  startsOpen: true,
  actions: [],
  pinned: false,
});

/** What a line is cut from: its bore goes with it. Null leaves the bore as typed. */
export const withStock =
  (lineId: string, stock: MaterialOf<'line'> | null): Edit =>
  (job) =>
    keepUsed(
      updateLine(lineId, stock ? { stockId: stock.id, bore: stock.bore } : { stockId: null })(job),
      stock ? [stock] : [],
    );

export const withHose =
  (lineId: string, hose: MaterialOf<'hose'> | null): Edit =>
  (job) =>
    keepUsed(
      updateLine(lineId, hose ? { hoseId: hose.id, hoseBore: null } : { hoseId: null })(job),
      hose ? [hose] : [],
    );
