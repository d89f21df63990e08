import type { StreamData, StreamKind } from '@wick/contract/run/stream';

/** How far a screen has been told: the order of the last entry, and of the last reading. */
export interface Position {
  readonly entry: number;
  readonly reading: number;
}

export type StreamEvent = {
  [K in StreamKind]: { readonly kind: K; readonly data: StreamData<K> };
}[StreamKind];

/** What happens, to whoever listens in this process. */
export interface Told {
  readonly event: StreamEvent;
  /** Of the entry or the last reading in it; 0 where it is neither. */
  readonly order: number;
}

export type Hub = ReturnType<typeof createHub>;

/** Tells every listener; one that throws harms no other. */
export function createHub() {
  const listeners = new Set<(told: Told) => void>();
  return {
    tell(told: Told): void {
      for (const listener of [...listeners])
        try {
          listener(told);
        } catch {
          listeners.delete(listener);
        }
    },
    /** @returns by which it is ended */
    listen(listener: (told: Told) => void): () => void {
      listeners.add(listener);
      return () => void listeners.delete(listener);
    },
  };
}
