import { errorCatalogue, type ErrorCode, type Problem } from '@wick/contract/errors';

/** A failure with its place in the catalogue; `current` is what is stored, for a stale write. */
export class ProblemError extends Error {
  constructor(
    readonly code: ErrorCode,
    detail: string,
    readonly current?: unknown,
  ) {
    super(detail);
  }

  toProblem(): Problem {
    const { status, title } = errorCatalogue[this.code];
    return {
      code: this.code,
      title,
      status,
      detail: this.message,
      ...(this.current === undefined ? {} : { current: this.current }),
    };
  }
}

/** PostgreSQL's own code for a full disk, and the file system's. */
const DISK_FULL = new Set(['53100', 'ENOSPC']);

/** Turns whatever was thrown into a problem; null when it is not a known one. */
export function knownProblem(error: unknown): ProblemError | null {
  if (error instanceof ProblemError) return error;
  for (
    let cause = error as
      { code?: unknown; message?: unknown; cause?: unknown; type?: unknown; status?: unknown } | undefined;
    cause;
    cause = cause.cause as typeof cause
  ) {
    if (DISK_FULL.has(String(cause.code)) || /no space left on device/i.test(String(cause.message)))
      return new ProblemError(
        'DISK_FULL',
        'Nothing was saved: the disk is full. Free some space and save again; what was saved before is untouched.',
      );
    if (cause.type === 'entity.too.large')
      return new ProblemError(
        'TOO_LARGE',
        'The file is larger than 4 MB; a job file never is. Check that it is the right one.',
      );
    if (cause.type === 'entity.parse.failed')
      return new ProblemError('NOT_JSON', 'The request is not complete JSON. Send it again.');
  }
  return null;
}
