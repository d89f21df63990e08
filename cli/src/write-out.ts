import { writeFileSync } from 'node:fs';
import { CliError } from './exit-codes.ts';

/** Writes a file, or says why it cannot be. */
export function writeOut(path: string, content: string | Uint8Array): void {
  try {
    writeFileSync(path, content);
  } catch (error) {
    throw new CliError(
      'file',
      `${path} cannot be written (${(error as NodeJS.ErrnoException).code}). Choose another place.`,
    );
  }
}
