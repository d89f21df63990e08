import { ModelError, requirePositive } from '../model-error.ts';
import { ASSUMED_ACTIVATION_ENERGY, GAS_CONSTANT } from './curve-fit.ts';

/** Gel time of a peroxide-cured resin over catalyst and temperature, as data sheets print it. */
export interface GelTable {
  /** Parts of catalyst to 100 of resin by weight, ascending. */
  readonly catalyst: readonly number[];
  /** K, ascending. */
  readonly temperature: readonly number[];
  /** s; one row a catalyst level, one column a temperature. */
  readonly time: readonly (readonly number[])[];
  /** How many times longer the inhibitor makes it; 1 without. */
  readonly inhibitorFactor?: number;
}

/**
 * Straight in the log of time between entries, in catalyst and temperature alike.
 * @param reach kelvin past its edge to which the slope there is carried on: for the scatter of a temperature inside it, and for
 *   a pot that warms; none for a temperature that somebody states
 * @throws ModelError GEL_TABLE_SHAPE; OUTSIDE_GEL_TABLE: a peroxide cure is not guessed beyond its table
 * Checked by resin.test.ts.
 */
export function gelTimeFromTable(
  table: GelTable,
  at: { catalyst: number; temperature: number },
  name: string,
  reach = 0,
): number {
  const { catalyst, temperature, time, inhibitorFactor = 1 } = table;
  const ascends = (values: readonly number[]) =>
    values.length > 0 && values.every((v, i) => v > 0 && (i === 0 || v > values[i - 1]));
  if (
    !ascends(catalyst) ||
    !ascends(temperature) ||
    time.length !== catalyst.length ||
    time.some((row) => row.length !== temperature.length)
  )
    throw new ModelError(
      'GEL_TABLE_SHAPE',
      `The gel table of ${name} needs one row for each catalyst level and one column for each temperature, both rising. Complete it.`,
    );
  time.forEach((row) => row.forEach((value) => requirePositive(value, `A gel time of ${name}`, 's')));
  requirePositive(inhibitorFactor, `The inhibitor factor of ${name}`, 'times');
  const row = place(catalyst, at.catalyst);
  const column = place(temperature, at.temperature, reach);
  if (!row || !column) {
    const celsius = (kelvin: number) => `${(kelvin - 273.15).toFixed(0)} °C`;
    throw new ModelError(
      'OUTSIDE_GEL_TABLE',
      row
        ? `The gel table of ${name} runs from ${celsius(temperature[0])} to ${celsius(temperature[temperature.length - 1])}; ${celsius(at.temperature)} is outside it. Work inside the table or ask the supplier.`
        : `The gel table of ${name} runs from ${catalyst[0]} to ${catalyst[catalyst.length - 1]} % of catalyst; ${at.catalyst} % is outside it. Work inside the table or ask the supplier.`,
      at,
    );
  }
  const log = (r: number, c: number) => Math.log(time[r][c]);
  const along = (r: number) =>
    column.low === column.high
      ? log(r, column.low) + ASSUMED_SLOPE * (1 / at.temperature - 1 / temperature[column.low])
      : log(r, column.low) + column.share * (log(r, column.high) - log(r, column.low));
  return inhibitorFactor * Math.exp(along(row.low) + row.share * (along(row.high) - along(row.low)));
}

/**
 * The table with a further temperature at either end, so many kelvin past its edge, carried on by the slope there: for a draw
 * from the scatter of a temperature that lies inside it. Errors as gelTimeFromTable. Checked by resin.test.ts.
 */
export function carriedOn(table: GelTable, kelvin: number, name: string): GelTable {
  if (!(kelvin > 0)) return table;
  const { catalyst, temperature, time } = table;
  const [cold, warm] = [temperature[0] - kelvin, temperature[temperature.length - 1] + kelvin];
  const read = (row: number, at: number) =>
    gelTimeFromTable(
      { ...table, inhibitorFactor: 1 },
      { catalyst: catalyst[row], temperature: at },
      name,
      kelvin,
    );
  return {
    ...table,
    temperature: [cold, ...temperature, warm],
    time: time.map((row, r) => [read(r, cold), ...row, read(r, warm)]),
  };
}

/** K; of a table with one temperature, read beside it. */
const ASSUMED_SLOPE = ASSUMED_ACTIVATION_ENERGY / GAS_CONSTANT;

/** Neighbours of a value in an ascending list, and how far it lies between them: past the ends by a reach at most, else null. */
function place(
  values: readonly number[],
  at: number,
  reach = 0,
): { low: number; high: number; share: number } | null {
  const slack = reach + 1e-9 * Math.abs(at);
  const last = values.length - 1;
  if (!(at >= values[0] - slack && at <= values[last] + slack)) return null;
  const above = values.findIndex((value) => value >= at);
  const high = Math.min(last, Math.max(1, above < 0 ? last : above));
  const low = Math.max(0, high - 1);
  const share = high === low ? 0 : (at - values[low]) / (values[high] - values[low]);
  return { low, high, share: reach > 0 ? share : Math.min(1, Math.max(0, share)) };
}
