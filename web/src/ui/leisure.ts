/**
 * Code that the first view does without. It is fetched when it is first shown, or at leisure once that view stands: from
 * then on work goes on without the server.
 */
export type Load<T> = () => Promise<T>;

const waiting: Load<unknown>[] = [];

/** The same load, fetched at leisure too. */
export function later<T>(load: Load<T>): Load<T> {
  waiting.push(load);
  return load;
}

/** Fetches what waits, one after the other; what that brings in and waits in turn comes too. */
export async function fetchRest() {
  for (let load = waiting.shift(); load; load = waiting.shift())
    try {
      await load();
    } catch {
      // The server does not answer: it is fetched when it is shown.
    }
}
