import { closeSync, fsyncSync, ftruncateSync, openSync, rmSync, statSync, writeSync } from 'node:fs';
import { randomBytes } from 'node:crypto';
import { dirname } from 'node:path';
import type { Disk } from './disk.ts';

const PIECE = 1_000_000;
const SIZE = 32 * PIECE;
/** Free bytes, beside the reserve itself, from which on a disk no longer counts as full. */
const SPARE = 32 * PIECE;

/** Room kept for the database in a file of its own: on a full disk what it is writing still goes through, and nothing after it. */
export interface Reserve {
  /** Whether all of it is there. */
  isWhole(): boolean;
  /** Gives up a piece of it. @returns whether there was one */
  give(): boolean;
  /** Takes it back if the disk has the room again. @returns whether all of it is there */
  refill(): boolean;
}

export function createReserve(file: string, disk: Disk): Reserve {
  let size = sizeOf(file);

  function shrinkTo(bytes: number) {
    const handle = openSync(file, 'r+');
    ftruncateSync(handle, bytes);
    closeSync(handle);
    size = bytes;
  }

  return {
    isWhole: () => size >= SIZE,
    give() {
      if (size === 0) return false;
      shrinkTo(Math.max(0, size - PIECE));
      return true;
    },
    refill() {
      if (size >= SIZE) return true;
      if (disk.free(dirname(file)) < SIZE - size + SPARE) return false;
      const handle = openSync(file, 'a');
      try {
        // Not zeros, which some file systems keep no room for.
        const piece = randomBytes(PIECE);
        for (; size < SIZE; size += PIECE) {
          disk.beforeWrite(file, PIECE);
          writeSync(handle, piece);
        }
        fsyncSync(handle);
        return true;
      } catch {
        return false;
      } finally {
        closeSync(handle);
        size = sizeOf(file);
      }
    },
  };
}

function sizeOf(file: string): number {
  try {
    return statSync(file).size;
  } catch {
    rmSync(file, { force: true });
    return 0;
  }
}
