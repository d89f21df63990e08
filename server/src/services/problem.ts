import { StoppedError } from '../repo/embedded/client.ts';
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

interface Cause {
  readonly code?: unknown;
  readonly message?: unknown;
  readonly cause?: unknown;
  readonly type?: unknown;
  readonly status?: unknown;
  readonly limit?: unknown;
}

/** PostgreSQL's own code for a full disk, the file system's, and of a write while the database only reads for want of room. */
const DISK_FULL = new Set(['53100', 'ENOSPC', '25006']);

/** Turns whatever was thrown into a problem; null when it is not a known one. */
export function knownProblem(error: unknown): ProblemError | null {
  if (error instanceof ProblemError) return error;
  for (let cause = error as Cause | undefined; cause; cause = cause.cause as Cause | undefined) {
    if (DISK_FULL.has(String(cause.code)) || /no space left on device/i.test(String(cause.message)))
      return new ProblemError(
        'DISK_FULL',
        'Nothing was saved: the disk is full. Free some space and save again; what was saved before is untouched.',
      );
    if (cause instanceof StoppedError)
      return new ProblemError(
        'STOPPED',
        'The database stopped and is being opened anew. Whether this was kept is not known: look, and try again.',
      );
    const known = problemOfRequest(cause);
    if (known) return known;
  }
  return null;
}

/** What the HTTP layer throws at a request that it cannot take in. */
function problemOfRequest({ type, status, limit }: Cause): ProblemError | null {
  if (type === 'entity.too.large')
    return new ProblemError(
      'TOO_LARGE',
      `This is larger than the ${sizeWords(Number(limit))} that are taken here. Check that it is the right file.`,
    );
  if (type === 'encoding.unsupported' || type === 'charset.unsupported')
    return new ProblemError('WRONG_TYPE', 'Send the request uncompressed or with gzip, as UTF-8.');
  if (typeof status === 'number' && status >= 400 && status < 500)
    return new ProblemError(
      'BAD_ADDRESS',
      'The request cannot be read. Check its address, and that all of it was sent.',
    );
  return null;
}

const sizeWords = (bytes: number) => (bytes >= 1e6 ? `${bytes / 1e6} MB` : `${bytes / 1e3} kB`);
