import type { Entry, NewEntry } from '@wick/contract/run/run';
import type { Photo } from '@wick/contract/run/photo';
import { computed } from 'vue';
import { createSendQueue, type QueueStore } from './send-queue.ts';

export interface WaitingEntry {
  readonly runId: string;
  readonly entry: NewEntry;
}
export interface WaitingPhoto {
  readonly runId: string;
  readonly photoId: string;
  readonly picture: Blob;
}

export interface OutboxParts {
  readonly entries: QueueStore<WaitingEntry>;
  readonly photos: QueueStore<WaitingPhoto>;
  /** @throws what passes is tried again until it does; anything else is a refusal */
  readonly send: (runId: string, entries: NewEntry[]) => Promise<Entry[]>;
  readonly sendPhoto: (runId: string, photoId: string, picture: Blob) => Promise<Photo>;
  readonly isPassing: (error: unknown) => boolean;
}

const AT_ONCE = 100;

export type Outbox = ReturnType<typeof createOutbox>;

/** What this device has written into any run and the server has not yet: one for the whole application. */
export function createOutbox({ entries, photos, send, sendPhoto, isPassing }: OutboxParts) {
  const listeners = new Set<(kept: readonly Entry[]) => void>();
  const written = createSendQueue<WaitingEntry>({
    ...{ store: entries, isPassing },
    idOf: ({ entry }) => entry.id,
    together: (waiting) => {
      const other = waiting.findIndex(({ runId }) => runId !== waiting[0]!.runId);
      return Math.min(AT_ONCE, other < 0 ? waiting.length : other);
    },
    async send(values) {
      const kept = await send(
        values[0]!.runId,
        values.map(({ entry }) => entry),
      );
      listeners.forEach((listener) => listener(kept));
    },
  });
  const taken = createSendQueue<WaitingPhoto>({
    ...{ store: photos, isPassing },
    idOf: ({ photoId }) => photoId,
    together: () => 1,
    send: async ([photo]) => void (await sendPhoto(photo!.runId, photo!.photoId, photo!.picture)),
  });

  return {
    /** Of all runs. */
    waitingCount: computed(() => written.waiting.value.length + taken.waiting.value.length),
    waitingEntries: written.waiting,
    waitingPhotos: taken.waiting,
    refusal: computed(() => written.refusal.value ?? taken.refusal.value),
    isOnDevice: computed(() => written.isOnDevice.value && taken.isOnDevice.value),
    /** @returns once it is on the device */
    say: (runId: string, entry: NewEntry): Promise<unknown> => written.add({ runId, entry }),
    takePhoto: (photo: WaitingPhoto): void => void taken.add(photo),
    flush(): void {
      void written.flush();
      void taken.flush();
    },
    stop(): void {
      written.stop();
      taken.stop();
    },
    /** @returns by which it is ended */
    onKept(listener: (kept: readonly Entry[]) => void): () => void {
      listeners.add(listener);
      return () => void listeners.delete(listener);
    },
  };
}
