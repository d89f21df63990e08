import { routes } from '@wick/contract/api';
import { streamSchemas, type StreamData, type StreamKind } from '@wick/contract/run/stream';
import { ref } from 'vue';

type Heard<K extends StreamKind> = (data: StreamData<K>) => void;

/** After so long without a word, ms, the server counts as lost; it is asked again after so long. */
const LOST_AFTER = 9000;
const AGAIN_AFTER = 3000;

/** What the stream needs of the browser. */
export interface StreamSource {
  addEventListener(kind: string, listener: (event: MessageEvent<string>) => void): void;
  close(): void;
  onerror: ((event: Event) => void) | null;
  readonly readyState: number;
}

const CLOSED = 2;

/** A browser keeps few connections to one server for all its tabs: of those out of sight one alone goes on listening. */
export interface StreamPage {
  readonly isHidden: () => boolean;
  readonly onTurn: (listener: () => void) => void;
  /** Listens for all hidden tabs where no other does. @returns by which that ends; null where another does */
  readonly takePlace: () => Promise<(() => void) | null>;
}

/** A tab that is out of sight for so long, ms, gives its connection back. */
const HIDDEN_FOR = 20_000;
const PLACE = 'wick stream of hidden tabs';

const browserPage: StreamPage = {
  isHidden: () => document.hidden,
  onTurn: (listener) => document.addEventListener('visibilitychange', listener),
  takePlace: () =>
    new Promise((resolve) => {
      // Where a page is not served securely there are no locks: then it goes on, as it is.
      if (!('locks' in navigator)) return resolve(() => undefined);
      void navigator.locks.request(PLACE, { ifAvailable: true }, (lock) =>
        lock ? new Promise<void>((release) => resolve(release)) : resolve(null),
      );
    }),
};

/**
 * What happens in the workshop, as the server tells it. The browser comes back by itself and says how far it had heard; where it gives
 * up it is begun anew, and everybody is told that there may be a gap.
 */
export function createStream(
  open: () => StreamSource = () => new EventSource(routes.stream.path),
  page: StreamPage = browserPage,
) {
  const listeners = new Map<StreamKind, Set<(data: never) => void>>();
  const isLost = ref(false);
  /** By which the server's clock is ahead of this one, ms. */
  let ahead = 0;
  let heardAt = Date.now();
  let source: StreamSource | null = null;
  let timers: ReturnType<typeof setInterval>[] = [];
  let again: ReturnType<typeof setTimeout> | undefined;
  let hiding: ReturnType<typeof setTimeout> | undefined;
  let leavePlace: (() => void) | null = null;
  let isStarted = false;

  function tell(kind: StreamKind, data: unknown): void {
    for (const listener of listeners.get(kind) ?? []) listener(data as never);
  }

  function begin(isAnew: boolean): void {
    source = open();
    heardAt = Date.now();
    for (const kind of Object.keys(streamSchemas) as StreamKind[])
      source.addEventListener(kind, ({ data }) => {
        const read = streamSchemas[kind].safeParse(JSON.parse(data));
        if (!read.success) return;
        heardAt = Date.now();
        isLost.value = false;
        if (kind === 'clock') ahead = (read.data as { now: number }).now - Date.now();
        tell(kind, read.data);
      });
    source.onerror = () => {
      if (source?.readyState !== CLOSED) return;
      clearTimeout(again);
      again = setTimeout(() => begin(true), AGAIN_AFTER);
    };
    if (isAnew) tell('gap', {});
  }

  /** Out of sight it listens on where no other hidden tab does; in sight it listens itself. */
  function turn(): void {
    clearTimeout(hiding);
    if (page.isHidden()) hiding = setTimeout(() => void hide(), HIDDEN_FOR);
    else {
      leavePlace?.();
      leavePlace = null;
      if (isStarted && !source) begin(true);
    }
  }
  async function hide(): Promise<void> {
    if (leavePlace || !source) return;
    const leave = await page.takePlace();
    if (!page.isHidden()) leave?.();
    else if (leave) leavePlace = leave;
    else {
      source?.close();
      source = null;
      isLost.value = false;
    }
  }

  return {
    isLost,
    /** ms since 1970, by the server's clock */
    now: () => Date.now() + ahead,
    start(): void {
      if (isStarted) return;
      isStarted = true;
      begin(false);
      page.onTurn(turn);
      timers = [
        setInterval(() => (isLost.value = source !== null && Date.now() - heardAt > LOST_AFTER), 1000),
      ];
    },
    stop(): void {
      isStarted = false;
      timers.forEach(clearInterval);
      clearTimeout(again);
      clearTimeout(hiding);
      source?.close();
      source = null;
    },
    /** @returns by which it is ended */
    on<K extends StreamKind>(kind: K, listener: Heard<K>): () => void {
      const own = listeners.get(kind) ?? new Set();
      own.add(listener);
      listeners.set(kind, own);
      return () => void own.delete(listener);
    },
  };
}

export type Stream = ReturnType<typeof createStream>;
/** One for the whole page. */
export const stream = createStream();
