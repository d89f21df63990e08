import { ModelError, requireFraction } from '../model-error.ts';

/** Glass transition of a resin, K: of the fresh mix and of the fully cured one; and how it bends between them, 0-1. */
export interface Glass {
  readonly fresh: number;
  readonly full: number;
  readonly lambda: number;
}

/** By which the glass transition may lead the temperature it cures at before cure stands still, K; 10 to 20, from memory. */
const STALL_LEAD = 15;

/**
 * Glass transition at a conversion, K: (Tg - Tg0) / (Tg1 - Tg0) = lambda a / (1 - (1 - lambda) a).
 * @param conversion 0-1
 * @throws ModelError GLASS_ORDER where the full one is not above the fresh one, or lambda is not within 0-1; NOT_FRACTION
 * Source: DiBenedetto's equation as given by Pascault & Williams 1990 (J. Polym. Sci. B 28:85). Checked by glass.test.ts.
 */
export function glassAt(conversion: number, glass: Glass): number {
  requireGlass(glass);
  if (conversion !== 0 && conversion !== 1) requireFraction(conversion, 'The conversion');
  const { fresh, full, lambda } = glass;
  return fresh + ((full - fresh) * lambda * conversion) / (1 - (1 - lambda) * conversion);
}

/**
 * Conversion at which a glass transition is reached: a = x / (lambda + (1 - lambda) x), x as in glassAt; 1 at most, 0 at least.
 * Errors, source and check as glassAt.
 */
export function conversionOfGlass(temperature: number, glass: Glass): number {
  requireGlass(glass);
  const { fresh, full, lambda } = glass;
  const x = Math.min(1, Math.max(0, (temperature - fresh) / (full - fresh)));
  return x / (lambda + (1 - lambda) * x);
}

/** Conversion at which cure stands still at a temperature, K. Errors, source and check as glassAt. */
export const stallsAt = (temperature: number, glass: Glass): number =>
  conversionOfGlass(temperature + STALL_LEAD, glass);

function requireGlass({ fresh, full, lambda }: Glass): void {
  if (!(fresh > 0 && full > fresh && lambda > 0 && lambda <= 1))
    throw new ModelError(
      'GLASS_ORDER',
      'A resin’s glass transition is higher when it is fully cured than when it is fresh, and bends between them by a number above 0 and up to 1. Correct them from the data sheet.',
      { fresh, full, lambda },
    );
}
