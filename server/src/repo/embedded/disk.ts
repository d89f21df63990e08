import { closeSync, fsyncSync, openSync, statfsSync } from 'node:fs';

/** What the embedded database asks of the disk besides reading and writing; a test puts one in its place that fills up or forgets. */
export interface Disk {
  /** Returns once what was written under a path is where a power cut leaves it; a handle is given for files. */
  sync(path: string, handle: number | null): void;
  /** Called before bytes are written under a path; may throw as the system does, with a code. */
  beforeWrite(path: string, byteCount: number): void;
  /** Bytes that can still be written beside a path. */
  free(path: string): number;
}

export const realDisk: Disk = {
  sync(path, handle) {
    if (handle !== null) fsyncSync(handle);
    else syncPath(path);
  },
  beforeWrite() {},
  free(path) {
    const { bavail, bsize } = statfsSync(path);
    return bavail * bsize;
  },
};

/** Syncs a file or a folder that is not open. */
export function syncPath(path: string): void {
  const handle = openSync(path, 'r');
  try {
    fsyncSync(handle);
  } catch (error) {
    // Windows syncs no folders; there a rename is on the disk when it returns.
    if (!['EPERM', 'EISDIR'].includes(String((error as NodeJS.ErrnoException).code))) throw error;
  } finally {
    closeSync(handle);
  }
}
