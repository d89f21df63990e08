import type { Entry, EntryBody, NewEntry, Run } from '@wick/contract/run/run';
import type { StreamData, StreamKind } from '@wick/contract/run/stream';
import { newId } from '@wick/plan/job/ids';
import { runTime } from '@wick/plan/run/clock';
import { runStateOf } from '@wick/plan/run/state';
import { computed, onScopeDispose, ref, shallowRef, type Ref } from 'vue';
import type { Outbox } from './outbox.ts';

/** What happens elsewhere, as the server tells it. */
interface Told {
  /** ms since 1970, by the server's clock */
  readonly now: () => number;
  /** @returns by which it is ended */
  readonly on: <K extends StreamKind>(kind: K, listener: (data: StreamData<K>) => void) => () => void;
}

export interface RunParts {
  readonly outbox: Pick<
    Outbox,
    'waitingEntries' | 'waitingPhotos' | 'refusal' | 'isOnDevice' | 'say' | 'takePhoto' | 'onKept'
  >;
  readonly listRuns: (jobId: string) => Promise<Run[]>;
  readonly listEntries: (runId: string) => Promise<Entry[]>;
  readonly addRun: (
    jobId: string,
    run: { id: string; kind: Run['kind']; speed: number; seed: number },
  ) => Promise<Run>;
  readonly stream: Told;
  /** What this device knows of runs, for when it is alone. */
  readonly copies: {
    readonly read: (runId: string) => Promise<readonly Entry[] | null>;
    readonly keep: (runId: string, entries: readonly Entry[]) => Promise<void>;
  };
  /** Which run of the job this device looked at last. */
  readonly lookedAt: { readonly read: () => string | null; readonly keep: (runId: string) => void };
  /** Who says what is said on this screen. */
  readonly name: Readonly<Ref<string>>;
}

export type RunSession = ReturnType<typeof createRunSession>;

/** A copy is kept once nothing has come in for so long, ms. */
const COPY_AFTER = 400;
/** Entries that wait stand after those that are kept. */
const WAITING = Number.MAX_SAFE_INTEGER;
export const isWaiting = ({ order }: Pick<Entry, 'order'>): boolean => order === WAITING;

/** The runs of a job, and the one that is looked at: what was said in it, here and on other screens. */
export function createRunSession(jobId: string, parts: RunParts) {
  const { stream, outbox } = parts;
  const runs = shallowRef<readonly Run[]>([]);
  const chosenId = ref<string | null>(null);
  const kept = shallowRef<readonly Entry[]>([]);
  const isLoaded = ref(false);
  const message = ref<string | null>(null);
  let asked = 0;
  let keeping: ReturnType<typeof setTimeout> | undefined;
  /** A run that is being made: what is said meanwhile is said in it. */
  let beginning: Promise<Run | null> = Promise.resolve(null);

  const run = computed(() => runs.value.find(({ id }) => id === chosenId.value) ?? null);

  const entries = computed(() => {
    const known = new Set(kept.value.map(({ id }) => id));
    const waiting = outbox.waitingEntries.value
      .filter(({ runId, entry: { id } }) => runId === chosenId.value && !known.has(id))
      .map(({ entry }): Entry => ({
        ...entry,
        ...{ runId: chosenId.value ?? '', order: WAITING, writtenAt: entry.at, device: '' },
      }));
    return [...kept.value, ...waiting];
  });
  const state = computed(() => runStateOf(entries.value));

  function take(added: readonly Entry[]): void {
    const known = new Set(kept.value.map(({ id }) => id));
    const fresh = added.filter(({ id, runId }) => runId === chosenId.value && !known.has(id));
    if (fresh.length === 0) return;
    kept.value = [...kept.value, ...fresh].sort((a, b) => a.order - b.order);
    keepCopy();
  }

  /** The one this device looked at last, else the part begun last, else the last rehearsal. */
  function usualOf(list: readonly Run[]): string | null {
    const last = parts.lookedAt.read();
    const found = list.find(({ id }) => id === last) ?? list.find(({ kind }) => kind === 'part') ?? list[0];
    return found?.id ?? null;
  }

  async function load(): Promise<void> {
    const own = ++asked;
    try {
      const list = await parts.listRuns(jobId);
      if (own !== asked) return;
      runs.value = list;
      if (!run.value) choose(usualOf(list));
      else await loadEntries();
      message.value = null;
      isLoaded.value = true;
    } catch (error) {
      if (own === asked) message.value = (error as Error).message;
    }
  }

  /** Without the network what this device last knew of it. */
  async function loadEntries(): Promise<void> {
    const id = chosenId.value;
    if (id === null) return;
    try {
      const list = await parts.listEntries(id);
      if (chosenId.value === id) take(list);
    } catch (error) {
      const copy = await parts.copies.read(id).catch(() => null);
      if (!copy) throw error;
      if (chosenId.value === id) take(copy);
    }
  }

  function keepCopy(): void {
    clearTimeout(keeping);
    const [id, list] = [chosenId.value, kept.value];
    if (id !== null)
      keeping = setTimeout(() => void parts.copies.keep(id, list).catch(() => undefined), COPY_AFTER);
  }

  function choose(id: string | null): void {
    if (id === chosenId.value) return;
    chosenId.value = id;
    kept.value = [];
    if (id !== null) parts.lookedAt.keep(id);
    void loadEntries().catch((error: unknown) => (message.value = (error as Error).message));
  }

  /** A further part, or a rehearsal. @param speed of its clock */
  function begin(kind: Run['kind'], speed = 1): Promise<Run | null> {
    return (beginning = make(kind, speed));
  }

  async function make(kind: Run['kind'], speed: number): Promise<Run | null> {
    try {
      const seed = Math.floor(Math.random() * 2 ** 31);
      const made = await parts.addRun(jobId, { id: newId(), kind, speed, seed });
      if (!runs.value.some(({ id }) => id === made.id)) runs.value = [made, ...runs.value];
      choose(made.id);
      message.value = null;
      return made;
    } catch (error) {
      message.value = (error as Error).message;
      return null;
    }
  }

  /** ms since 1970, by the clock of the run; of no run yet by the server's. */
  const now = () => (run.value ? runTime(run.value, stream.now()) : stream.now());

  /** Writes down what happened; where there is no run yet the first part's is begun. @returns the id of the entry */
  async function say(body: EntryBody, at?: number): Promise<string | null> {
    await beginning;
    if (!run.value && !isLoaded.value) await load();
    if (!run.value && !(await begin('part'))) return null;
    const entry: NewEntry = {
      id: newId(),
      at: new Date(at ?? now()).toISOString(),
      by: parts.name.value,
      body,
    };
    void outbox.say(run.value!.id, entry);
    return entry.id;
  }

  const isOfRun = ({ runId }: { readonly runId: string }) => runId === chosenId.value;

  /** A picture, with the entry that speaks of it. */
  /** @returns its id; null where there is no run for it */
  async function takePhoto(
    picture: Blob,
    about: { stepId: string | null; caption: string },
  ): Promise<string | null> {
    const photoId = newId();
    if ((await say({ kind: 'photo', photoId, ...about })) === null) return null;
    outbox.takePhoto({ runId: run.value!.id, photoId, picture });
    return photoId;
  }

  const stops = [
    stream.on('entry', (entry) => take([entry])),
    stream.on('run', (told) => {
      if (told.jobId !== jobId) return;
      const others = runs.value.filter(({ id }) => id !== told.id);
      runs.value = [told, ...others].sort((a, b) => b.number - a.number);
    }),
    stream.on('gap', () => void load()),
    outbox.onKept(take),
  ];
  onScopeDispose(() => stops.forEach((stop) => stop()));

  return {
    ...{ runs, run, entries, state, isLoaded, message, load, choose, begin, say, now },
    /** Of the rehearsal that is looked at; null where it is a part. */
    rehearsalId: computed(() => (run.value?.kind === 'rehearsal' ? run.value.id : null)),
    /** Of this device, not sent yet: entries and pictures of this run. */
    waitingCount: computed(
      () =>
        outbox.waitingEntries.value.filter(isOfRun).length +
        outbox.waitingPhotos.value.filter(isOfRun).length,
    ),
    /** Pictures that have not been sent, by their ids. */
    waitingPhotos: computed(
      () =>
        new Map(outbox.waitingPhotos.value.filter(isOfRun).map(({ photoId, picture }) => [photoId, picture])),
    ),
    refusal: outbox.refusal,
    isOnDevice: outbox.isOnDevice,
    takePhoto,
    by: parts.name,
  };
}
