import type { QuantityName } from '@wick/core/units/quantities';
import { inject, type InjectionKey } from 'vue';

/** The workshop's choice of units, for everything that shows or reads a quantity. */
export interface Units {
  unit(quantity: QuantityName): string;
  show(value: number | null | undefined, quantity: QuantityName): string;
  /** Pa, absolute: what a gauge reading is taken from. */
  readonly ambient: number;
}

export const unitsKey: InjectionKey<Units> = Symbol('units');

export function useUnits(): Units {
  const units = inject(unitsKey);
  if (!units) throw new Error('no units are provided here: the application provides them');
  return units;
}
