import { unshielded, writeCsv, type Cell } from '../csv.ts';
import { quoted, sentenceOf, type Read } from '../read.ts';
import { fromUnit } from '@wick/core/units/format';
import { quantityOf, type QuantityName, type Unit } from '@wick/core/units/quantities';
import Papa from 'papaparse';
import { MAX_IMPORT } from '@wick/contract/api';
import { materialSchema, type Material, type MaterialKind } from '@wick/contract/materials';
import { fields, kindNames, kinds } from './fields.ts';

export type { Cell };
export interface Sheet {
  readonly name: string;
  readonly rows: readonly (readonly Cell[])[];
}

/** No kind of material has nearly so many values, nor a path nearly so long. */
const MOST_COLUMNS = 400;
const LONGEST_HEADING = 160;

/** Written where a value is known to be none, and where a list is empty; a blank cell is a value nobody has said. */
const NONE = 'none';
const EMPTY = 'empty';

/** What the paths that are not in the field table are measured in. */
const listQuantities: Record<string, QuantityName> = {
  'viscosityPoints.temperature': 'temperature',
  'viscosityPoints.viscosity': 'viscosity',
  'gelPoints.temperature': 'temperature',
  'gelPoints.time': 'duration',
  'lots.mass': 'mass',
  'lots.storeTemperature': 'temperature',
  directions: 'angle',
};

function quantityAt(kind: MaterialKind, path: string): QuantityName | undefined {
  const bare = path.replace(/\.\d+(?=\.|$)/g, '');
  return fields[kind].find((field) => field.path === path)?.quantity ?? listQuantities[bare];
}

/** Coherent SI, the unit all values are written in: so that out and in again is the same to the last digit. */
function siUnit(name: QuantityName): Unit {
  const { units } = quantityOf(name);
  return units.find((unit) => unit.factor === 1 && !unit.offset) ?? units[0]!;
}
const isSi = (name: QuantityName) => siUnit(name).factor === 1;

/** One sheet a kind, a row an entry, a column a value; its heading gives the path and the unit. */
export function sheetsOf(materials: readonly Material[]): Sheet[] {
  return kinds
    .map((kind) => ({ kind, own: materials.filter((material) => material.kind === kind) }))
    .filter(({ own }) => own.length > 0)
    .map(({ kind, own }) => ({ name: kindNames[kind], rows: rowsOf(kind, own) }));
}

/** All kinds in one table, as a CSV. */
export function csvOf(materials: readonly Material[]): string {
  return sheetsOf(materials)
    .map((sheet) => writeCsv(sheet.rows))
    .join('\r\n\r\n');
}

function rowsOf(kind: MaterialKind, materials: readonly Material[]): Cell[][] {
  const flat = materials.map((material) => flatten(material));
  const paths = [...new Set(flat.flatMap((entry) => [...entry.keys()]))];
  const first = ['kind', 'id', 'name', 'source', ...fields[kind].map((field) => field.path)];
  const ordered = [
    ...first.filter((path) => paths.includes(path)),
    ...paths.filter((path) => !first.includes(path)),
  ];
  const heading = (path: string) => {
    const quantity = quantityAt(kind, path);
    return quantity && isSi(quantity) && siUnit(quantity).symbol !== ''
      ? `${path} [${siUnit(quantity).symbol}]`
      : path;
  };
  return [ordered.map(heading), ...flat.map((entry) => ordered.map((path) => entry.get(path) ?? null))];
}

/** Leaves of an entry by their paths; list items count from 1. */
function flatten(value: unknown, path = '', into = new Map<string, Cell>()): Map<string, Cell> {
  if (value === undefined) return into;
  if (value === null) into.set(path, NONE);
  else if (Array.isArray(value)) {
    if (value.length === 0) into.set(path, EMPTY);
    value.forEach((item, i) => flatten(item, `${path}.${i + 1}`, into));
  } else if (typeof value === 'object') {
    for (const [key, item] of Object.entries(value))
      flatten(item, path === '' ? key : `${path}.${escapeKey(key)}`, into);
  } else into.set(path, value as Cell);
  return into;
}

/** Keys of "about" are paths themselves. */
const escapeKey = (key: string) => key.replaceAll('.', '/');

/** Reads a CSV of one or several tables, each under its own headings. */
export function readCsv(text: string): Read<Material[]> {
  if (text.includes('\0'))
    return refuse('The file is not a text file. Save the table as CSV and import it again.');
  const parsed = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), { skipEmptyLines: false });
  const rows = parsed.data.map((row) =>
    row.map((cell): Cell => (cell.trim() === '' ? null : unshielded(cell.trim()))),
  );
  const tables: Sheet[] = [];
  let current: Cell[][] = [];
  const finish = () => {
    if (current.length > 0) tables.push({ name: `table ${tables.length + 1}`, rows: current });
    current = [];
  };
  for (const row of rows) {
    if (row.every((cell) => cell === null)) finish();
    else current.push(row);
  }
  finish();
  return readSheets(tables);
}

/**
 * Entries of a library from the rows of its sheets. Headings may give another unit: "arealWeight [oz/yd²]". Every refusal
 * names the sheet, the row and the column.
 */
export function readSheets(sheets: readonly Sheet[]): Read<Material[]> {
  const materials: Material[] = [];
  for (const { name, rows } of sheets) {
    const [head, ...body] = rows;
    if (!head) continue;
    if (head.length > MOST_COLUMNS)
      return refuse(
        `${name} has ${head.length} columns; a library has fewer than ${MOST_COLUMNS}. Check that it is the right file.`,
      );
    const long = head.find((cell) => String(cell ?? '').length > LONGEST_HEADING);
    if (long !== undefined)
      return refuse(
        `${name}: a heading has more than ${LONGEST_HEADING} characters. Check that it is the right file.`,
      );
    const columns = head.map((cell) => headingOf(String(cell ?? '')));
    if (!columns.some((column) => column.path === 'kind') || !columns.some((column) => column.path === 'id'))
      return refuse(
        `${name}: the first row has no “kind” and “id” columns. Export the library once to see the headings.`,
      );
    const repeated = columns.find(
      ({ path }, i) => path !== '' && columns.findIndex((other) => other.path === path) !== i,
    );
    if (repeated) return refuse(`${name}: the column “${repeated.path}” is there twice. Keep one of them.`);
    for (const [n, row] of body.entries()) {
      if (row.every((cell) => cell === null || cell === '')) continue;
      const place = `${name}, row ${n + 2}`;
      const entry = entryOf(row, columns);
      if (typeof entry === 'string') return refuse(`${place}: ${entry}`);
      const checked = materialSchema.safeParse(entry);
      if (!checked.success)
        return refuse(
          `${place}, ${sentenceOf(checked.error).replace(/^At /, 'column ')} Correct it there and import it again.`,
        );
      materials.push(checked.data);
      if (materials.length > MAX_IMPORT)
        return refuse(`There are more than ${MAX_IMPORT} entries. Import the library in parts.`);
    }
  }
  if (materials.length === 0)
    return refuse('There is no entry in the file. Export the library once to see how one looks.');
  const ids = materials.map(({ id }) => id);
  const twice = ids.find((id, i) => ids.indexOf(id) !== i);
  if (twice !== undefined) return refuse(`The id ${quoted(twice)} is there twice. Give each entry its own.`);
  return { ok: true, value: materials };
}

function refuse(message: string): { ok: false; code: 'BAD_LIBRARY'; message: string } {
  return { ok: false, code: 'BAD_LIBRARY', message };
}

interface Heading {
  readonly path: string;
  readonly unit: string | null;
}

function headingOf(text: string): Heading {
  const match = /^\s*([^[\]]+?)\s*(?:\[([^\]]*)\])?\s*$/.exec(text);
  return { path: match?.[1] ?? '', unit: match?.[2]?.trim() ?? null };
}

/** A sentence where a cell cannot be read. */
function entryOf(row: readonly Cell[], columns: readonly Heading[]): unknown {
  const kindCell = row[columns.findIndex(({ path }) => path === 'kind')];
  const kind = kinds.find((item) => item === kindCell);
  if (!kind) return `${quoted(kindCell ?? '')} is no kind of material. Use one of ${kinds.join(', ')}.`;
  const entry: Record<string, unknown> = {};
  for (const [n, { path, unit }] of columns.entries()) {
    const cell = row[n] ?? null;
    if (path === '' || cell === null || cell === '') continue;
    const value = valueOf(cell, kind, path, unit);
    if (typeof value === 'object' && value !== null && 'fault' in value) return value.fault;
    if (!put(entry, path.split('.'), value)) return `the column “${path}” does not fit beside the others.`;
  }
  return entry;
}

/** What is written freely, and what is one of a few words. */
const words =
  /^(kind|id|name|source|about\..*\.source|learned\.\w+\.runIds\.\d+|lots\.\d+\.(id|part|number|care))$/;
const dates = /^lots\.\d+\.expires$/;
const isChoice = (kind: MaterialKind, path: string) =>
  path === 'permeability.fibres.packing' ||
  fields[kind].some((field) => field.path === path && field.choices !== undefined);

function valueOf(cell: Cell, kind: MaterialKind, path: string, unit: string | null): unknown {
  if (cell === NONE && !words.test(path)) return null;
  if (isChoice(kind, path) || words.test(path) || dates.test(path)) return String(cell);
  if (cell === EMPTY) return [];
  const number = typeof cell === 'number' ? cell : Number(String(cell).replace(',', '.'));
  if (!Number.isFinite(number))
    return { fault: `column “${path}” reads ${quoted(cell)}, which is no number.` };
  const quantity = quantityAt(kind, path);
  if (!unit || !quantity) return number;
  const wanted = unit.toLowerCase();
  const known = quantityOf(quantity).units.find(
    ({ symbol, aliases }) => symbol.toLowerCase() === wanted || aliases?.includes(wanted),
  );
  if (!known)
    return {
      fault: `column “${path}” is in “${unit}”, which is no unit of ${quantityOf(quantity).label}. Use ${quantityOf(
        quantity,
      )
        .units.map(({ symbol }) => symbol)
        .filter(Boolean)
        .join(', ')}.`,
    };
  return known.factor === 1 && !known.offset ? number : fromUnit(number, quantity, known.symbol);
}

/** False where the path runs into a value, or a list has a hole. */
function put(into: Record<string, unknown> | unknown[], [key, ...rest]: string[], value: unknown): boolean {
  const isList = Array.isArray(into);
  const at = isList ? Number(key) - 1 : key!.replaceAll('/', '.');
  if (key === '__proto__' || key === 'constructor' || key === 'prototype') return false;
  if (isList && !(Number.isInteger(at) && (at as number) >= 0 && (at as number) <= into.length)) return false;
  const target = into as Record<string | number, unknown>;
  if (rest.length === 0) {
    if (target[at] !== undefined) return false;
    target[at] = value;
    return true;
  }
  target[at] ??= /^\d+$/.test(rest[0]!) ? [] : {};
  const next = target[at];
  return typeof next === 'object' && next !== null && put(next as Record<string, unknown>, rest, value);
}
