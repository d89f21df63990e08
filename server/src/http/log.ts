import type { LoggerOptions } from 'pino';

const LONGEST = 400;

interface Logged {
  readonly name?: string;
  readonly message?: string;
  readonly stack?: string;
  readonly cause?: unknown;
}

/** An error for the log: what it says and where it was, without the documents that a failed query carries along. */
function loggedError(error: unknown): object {
  const { name, message, stack, cause } = (error ?? {}) as Logged;
  // The words of a failed query hold its values; its cause says what was wrong.
  const isQuery = /^Failed query/.test(message ?? '');
  return {
    type: name,
    message: isQuery ? 'a query failed' : (message ?? String(error)).slice(0, LONGEST),
    stack: stack
      ?.split('\n')
      .filter((line) => /^\s+at /.test(line))
      .slice(0, 12)
      .join('\n'),
    ...(cause === undefined ? {} : { cause: loggedError(cause) }),
  };
}

export const logOptions = (level = 'info'): LoggerOptions => ({
  level,
  serializers: { err: loggedError },
});
