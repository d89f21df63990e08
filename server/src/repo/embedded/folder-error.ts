/** The data folder cannot be used; the message says why and what to do. */
export class FolderError extends Error {}

/** What went wrong, in words, whatever was thrown: the embedded database throws objects that have none. */
export function wordsOf(error: unknown): string {
  if (error instanceof Error && error.message && error.message !== '[object Object]') return error.message;
  const { code, errno, name } = (error ?? {}) as { code?: unknown; errno?: unknown; name?: unknown };
  const said = [code, errno === undefined ? undefined : `error ${String(errno)}`, name].find(
    (part) => typeof part === 'string' && part !== '',
  );
  return typeof said === 'string' ? said : 'no reason was given';
}
