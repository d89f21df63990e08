import { describe, expect, test } from '@jest/globals';
import { strToU8, zipSync } from 'fflate';
import Papa from 'papaparse';
import readWorkbook from 'read-excel-file/universal';
import { demoMaterials } from '../../demo/materials.ts';
import { materialSchema, type Material } from '@wick/contract/materials';
import { blankOf, fields, kinds, withValue } from './fields.ts';
import { valueAt } from '../../value-at.ts';
import { csvOf, readCsv, readSheets, sheetsOf, type Cell, type Sheet } from './sheets.ts';
import { readLibraryWorkbook, workbookOf } from './workbook.ts';

const byId = (list: readonly Material[]) => [...list].sort((a, b) => a.id.localeCompare(b.id));
const bytesOf = async (blob: Blob) => new Uint8Array(await blob.arrayBuffer());
const mesh: Material = {
  id: 'mesh',
  name: 'Mesh',
  source: '',
  kind: 'flowMesh',
  thickness: 1e-3,
  porosity: 0.8,
  permeability: 3e-9,
};
const meshSheet = (changes: { head?: Cell[]; row?: Cell[] } = {}): Sheet => ({
  name: 'Flow meshes',
  rows: [
    changes.head ?? ['kind', 'id', 'name', 'source', 'thickness [m]', 'porosity', 'permeability [m²]'],
    changes.row ?? ['flowMesh', 'mesh', 'Mesh', '', 1e-3, 0.8, 3e-9],
  ],
});

describe('out and in again', () => {
  test('XLSX: every entry of the demo library is the same to the last digit', async () => {
    const read = await readLibraryWorkbook(await bytesOf(await workbookOf(demoMaterials)));
    if (!read.ok) throw new Error(read.message);
    expect(byId(read.value)).toEqual(byId(demoMaterials));
  });

  test('CSV likewise', () => {
    const read = readCsv(csvOf(demoMaterials));
    if (!read.ok) throw new Error(read.message);
    expect(byId(read.value)).toEqual(byId(demoMaterials));
  });

  test('a workbook opens in a general-purpose reader, one sheet a kind', async () => {
    const sheets = await readWorkbook(await workbookOf(demoMaterials));
    expect(sheets).toHaveLength(new Set(demoMaterials.map(({ kind }) => kind)).size);
    expect(sheets[0]!.data[0]![0]).toBe('kind');
  });

  test('odd names, doubts and empty lists survive', () => {
    const odd: Material = {
      ...(demoMaterials.find(({ id }) => id === 'chopped-mat-450') as Material),
      name: 'Mat; "450", 1/2 – ä',
      about: { 'permeability.along': { doubt: 0.3, source: 'Strip, 3 runs' } },
    };
    const read = readCsv(csvOf([odd]));
    expect(read.ok && read.value).toEqual([odd]);
  });
});

test('a text that a spreadsheet would take for a formula is marked as text, and comes back as it was', () => {
  const names = ['=HYPERLINK("http://a")', '+1', '-1', '@SUM(A1)', "'=1", "''@x"];
  const odd = names.map((name, i): Material => ({ ...mesh, id: `mesh-${i}`, name }));
  const text = csvOf(odd);
  const cells = (Papa.parse(text).data as string[][]).flat();
  expect(cells.filter((cell) => /^[=+@]/.test(cell) || /^-\D/.test(cell))).toEqual([]);
  const read = readCsv(text);
  expect(read.ok && read.value.map(({ name }) => name)).toEqual(names);
});

describe('headings', () => {
  test('other units are turned into SI', () => {
    const sheet = meshSheet({
      head: ['kind', 'id', 'name', 'source', 'thickness [mil]', 'porosity', 'permeability [darcy]'],
      row: ['flowMesh', 'mesh', 'Mesh', '', 40, 0.8, 3000],
    });
    const read = readSheets([sheet]);
    if (!read.ok) throw new Error(read.message);
    // 1 mil = 25.4 um; 1 darcy = 9.869233e-13 m2 (NIST SP 811).
    expect(valueAt(read.value[0]!, 'thickness')).toBeCloseTo(40 * 25.4e-6, 12);
    expect(valueAt(read.value[0]!, 'permeability')).toBeCloseTo(3000 * 9.869233e-13, 15);
  });

  test('columns may stand in any order; blank ones are passed over', () => {
    const read = readSheets([
      {
        name: 'x',
        rows: [
          ['porosity', null, 'id', 'kind', 'permeability', 'name', 'thickness'],
          [0.8, 'note', 'mesh', 'flowMesh', 3e-9, 'Mesh', 1e-3],
          [null, null],
        ],
      },
    ]);
    expect(read.ok && read.value).toEqual([mesh]);
  });
});

describe('files that cannot be used', () => {
  test.each<[string, Sheet[], string]>([
    ['no rows', [], 'no entry'],
    ['headings only', [{ name: 'x', rows: [['kind', 'id']] }], 'no entry'],
    [
      'no id column',
      [
        {
          name: 'Meshes',
          rows: [
            ['kind', 'name'],
            ['flowMesh', 'a'],
          ],
        },
      ],
      'Meshes: the first row',
    ],
    [
      'unknown kind',
      [meshSheet({ row: ['unobtainium', 'mesh', 'Mesh', '', 1, 1, 1] })],
      'row 2: “unobtainium” is no kind',
    ],
    [
      'word for a number',
      [meshSheet({ row: ['flowMesh', 'mesh', 'Mesh', '', 'thin', 0.8, 3e-9] })],
      'reads “thin”, which is no number',
    ],
    [
      'value out of range',
      [meshSheet({ row: ['flowMesh', 'mesh', 'Mesh', '', 1e-3, 80, 3e-9] })],
      'column porosity',
    ],
    [
      'unit of something else',
      [meshSheet({ head: ['kind', 'id', 'name', 'source', 'thickness [kg]', 'porosity', 'permeability'] })],
      'no unit of thickness',
    ],
    [
      'column twice',
      [meshSheet({ head: ['kind', 'id', 'id', 'source', 'thickness', 'porosity', 'permeability'] })],
      '“id” is there twice',
    ],
    [
      'value missing',
      [meshSheet({ row: ['flowMesh', 'mesh', 'Mesh', '', null, 0.8, 3e-9] })],
      'column thickness',
    ],
    ['same id twice', [meshSheet(), meshSheet()], '“mesh” is there twice'],
    [
      'column of no meaning',
      [
        meshSheet({
          head: ['kind', 'id', 'name', 'source', 'thickness', 'porosity', 'permeability.__proto__.x'],
        }),
      ],
      'does not fit',
    ],
    ['infinite', [meshSheet({ row: ['flowMesh', 'mesh', 'Mesh', '', Infinity, 0.8, 3e-9] })], 'no number'],
    [
      'too many',
      [
        {
          name: 'x',
          rows: [
            meshSheet().rows[0]!,
            ...Array.from(
              { length: 2001 },
              (_, i) => ['flowMesh', `m${i}`, 'M', '', 1e-3, 0.8, 3e-9] as Cell[],
            ),
          ],
        },
      ],
      'more than 2000',
    ],
  ])('sheet with %s', (_, sheets, says) => {
    const read = readSheets(sheets);
    expect(!read.ok && read.message).toContain(says);
    expect(({} as Record<string, unknown>).x).toBeUndefined();
  });

  const zip = (files: Record<string, string>) =>
    zipSync(Object.fromEntries(Object.entries(files).map(([name, text]) => [name, strToU8(text)])));
  test.each<[string, () => Uint8Array | Promise<Uint8Array>, string]>([
    ['nothing', () => new Uint8Array(), 'does not open'],
    ['a text', () => strToU8('kind,id'), 'does not open'],
    [
      'half a workbook',
      async () => (await bytesOf(await workbookOf(demoMaterials))).slice(0, 2000),
      'does not open',
    ],
    ['another archive', () => zip({ 'readme.txt': 'hello' }), 'no sheets'],
    [
      'a workbook with broken sheets',
      () => zip({ 'xl/workbook.xml': '<workbook><sheets><sheet', '[Content_Types].xml': '' }),
      'no sheets',
    ],
    [
      'a bomb',
      () => zipSync({ 'xl/worksheets/sheet1.xml': new Uint8Array(61_000_000) }, { level: 9 }),
      'unpacks to far more',
    ],
    ['five megabytes', () => new Uint8Array(5_000_000), 'larger than 4 MB'],
  ])('workbook: %s', async (_, make, says) => {
    const read = await readLibraryWorkbook(await make());
    expect(!read.ok && read.message).toContain(says);
  });

  test('a CSV that is none', () => {
    for (const text of ['', '\0\0PK', 'a;b;c\n1;2;3']) expect(readCsv(text).ok).toBe(false);
  });
});

describe('fields', () => {
  test('of every kind lead into the entry; a blank entry of each is valid', () => {
    for (const kind of kinds) {
      const blank = blankOf(kind, 'new-entry');
      expect(materialSchema.safeParse(blank).success).toBe(true);
      for (const field of fields[kind]) if (!field.optional) expect(valueAt(blank, field.path)).toBeDefined();
    }
  });

  test('a value is put in beside the others, and a group without values goes', () => {
    const core = blankOf('core', 'c');
    const holed = withValue(withValue(core, 'holes.diameter', 0.003), 'holes.spacing', 0.02);
    expect(valueAt(holed, 'holes')).toEqual({ diameter: 0.003, spacing: 0.02 });
    const bare = withValue(withValue(holed, 'holes.diameter', null), 'holes.spacing', null);
    expect(valueAt(bare, 'holes')).toBeNull();
    expect(sheetsOf([core])[0]!.name).toBe('Cores');
  });
});
