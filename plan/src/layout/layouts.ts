import { MOST_LAYOUTS, type Job, type JobLayout } from '@wick/contract/job/job';
import type { Edit } from '../job/edits.ts';
import { idsFrom, newId } from '../job/ids.ts';
import { currentLayout, layoutOf, type LaidJob } from '../job/laid.ts';

const LETTERS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ';

export const hasRoomForLayout = (job: Job) => job.layouts.length < MOST_LAYOUTS;

/** Keeps the layout as it stands and goes on with a copy under the next letter; the job as it is when there is no room for more. */
export const copyLayout = (name = '', id: string = newId()): Edit => addLayoutLike(currentLayout, name, id);

/** Goes on with what was laid out elsewhere, under the next letter; the job as it is when there is no room for more. */
export const addLayout = (laid: LaidJob, name: string, id: string = newId()): Edit =>
  addLayoutLike(() => layoutOf(laid), name, id);

const addLayoutLike =
  (like: (job: Job) => JobLayout, name: string, id: string): Edit =>
  (job) => {
    const taken = new Set(job.layouts.map(({ letter }) => letter));
    const letter = [...LETTERS].find((candidate) => !taken.has(candidate));
    if (!letter || !hasRoomForLayout(job)) return job;
    const added = { ...withOwnIds(like(job), id), id, letter, name };
    return { ...job, layouts: sorted([...job.layouts, added]), currentLayoutId: id };
  };

/** What was laid out elsewhere in place of the layout worked on, which keeps its letter and name. */
export const replaceLayout =
  (laid: LaidJob): Edit =>
  (job) => {
    const { id, letter, name } = currentLayout(job);
    return {
      ...job,
      layouts: job.layouts.map((layout) =>
        layout.id === id ? { ...layoutOf(laid), id, letter, name } : layout,
      ),
    };
  };

/** Takes up another layout. */
export const adoptLayout =
  (id: string): Edit =>
  (job) =>
    job.layouts.some((layout) => layout.id === id) ? { ...job, currentLayoutId: id } : job;

/** One layout always stays; the one worked on cannot go. */
export const removeLayout =
  (id: string): Edit =>
  (job) =>
    id === job.currentLayoutId ? job : { ...job, layouts: job.layouts.filter((layout) => layout.id !== id) };

export const renameLayout =
  (id: string, name: string): Edit =>
  (job) => ({
    ...job,
    layouts: job.layouts.map((layout) => (layout.id === id ? { ...layout, name } : layout)),
  });

const sorted = (layouts: JobLayout[]) => layouts.sort((a, b) => (a.letter < b.letter ? -1 : 1));

/** Fields of a layout that hold the id of something. */
const REFERENCES = new Set(['id', 'tee', 'stationId', 'what', 'zone', 'except']);

/** The same layout with an id of its own for everything in it; what it refers to outside of it stays. */
function withOwnIds(layout: JobLayout, seed: string): JobLayout {
  const nextId = idsFrom(seed);
  const now = new Map<unknown, string>();
  const note = (value: unknown) => {
    if (typeof value !== 'object' || value === null) return;
    if ('id' in value) now.set(value.id, nextId());
    Object.values(value).forEach(note);
  };
  note(layout);
  const renamed = (item: unknown): unknown =>
    Array.isArray(item) ? item.map(renamed) : (now.get(item) ?? item);
  const change = (value: unknown): unknown => {
    if (Array.isArray(value)) return value.map(change);
    if (typeof value !== 'object' || value === null) return value;
    return Object.fromEntries(
      Object.entries(value).map(([key, item]) => [key, REFERENCES.has(key) ? renamed(item) : change(item)]),
    );
  };
  return change(layout) as JobLayout;
}
