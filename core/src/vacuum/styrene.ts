/** Pa a mmHg. */
const MMHG = 133.3224;
/** How far above its vapour pressure a resin keeps its styrene; common practice, no source. */
const SPARE = 1.5;

/** Vapour pressure of styrene, Pa, at K. Source: Antoine constants from memory. Checked by styrene.test.ts. */
export const styreneVapourPressure = (temperature: number): number =>
  MMHG * 10 ** (7.14 - 1574.5 / (temperature - 273.15 + 224.1));

/** Absolute pressure, Pa, below which styrene is about to boil out of a resin so warm. */
export const styreneBoilsBelow = (temperature: number): number => SPARE * styreneVapourPressure(temperature);
