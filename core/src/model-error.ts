/**
 * A request the models cannot answer: wrong number, impossible geometry, value outside a table.
 * `message` is one sentence for the user: what, where, and a way out. `facts` carries the numbers behind it.
 */
export class ModelError extends Error {
  constructor(
    readonly code: string,
    message: string,
    readonly facts: Readonly<Record<string, unknown>> = {},
  ) {
    super(message);
    this.name = 'ModelError';
  }
}

/** What a computation comes to, or null where the models refuse it: for where a refusal is said elsewhere, or is an answer. */
export function orNull<T>(work: () => T): T | null {
  try {
    return work();
  } catch (error) {
    if (error instanceof ModelError) return null;
    throw error;
  }
}

/**
 * Guard for a number that must be finite and greater than zero; written so that NaN fails.
 * @throws ModelError NOT_POSITIVE naming the field and the value
 */
export function requirePositive(value: number, field: string, unit: string): void {
  if (!(value > 0 && value < Infinity))
    throw new ModelError('NOT_POSITIVE', `${field} must be a number above zero (${unit}), got ${value}.`, {
      field,
      value,
    });
}

/**
 * Guard for a fraction strictly between 0 and 1; NaN fails.
 * @throws ModelError NOT_A_FRACTION naming the field and the value
 */
export function requireFraction(value: number, field: string): void {
  if (!(value > 0 && value < 1))
    throw new ModelError('NOT_A_FRACTION', `${field} must lie between 0 and 1, got ${value}.`, {
      field,
      value,
    });
}
