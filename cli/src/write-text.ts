import { writeFileSync } from 'node:fs';
import { CliError } from './exit-codes.ts';

/** Writes a file, or says why it cannot be. */
export function writeText(path: string, text: string): void {
  try {
    writeFileSync(path, text);
  } catch (error) {
    throw new CliError(
      'file',
      `${path} cannot be written (${(error as NodeJS.ErrnoException).code}). Choose another place.`,
    );
  }
}
