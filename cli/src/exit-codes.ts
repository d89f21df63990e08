export const exitCodes = {
  fine: { code: 0, meaning: 'fills before gel' },
  trouble: { code: 1, meaning: 'does not fill, or traps air' },
  usage: { code: 2, meaning: 'wrong command or option' },
  file: { code: 3, meaning: 'file missing or not a usable job' },
  model: { code: 4, meaning: 'the job lacks something or asks the impossible' },
} as const;

export interface Output {
  out(text: string): void;
  err(text: string): void;
}

/** Ends a command with a sentence and the exit code of its kind. */
export class CliError extends Error {
  constructor(
    readonly kind: keyof typeof exitCodes,
    message: string,
  ) {
    super(message);
  }
}
