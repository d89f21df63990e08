import { strToU8, zipSync } from 'fflate';

/** A file made to hang, fill the memory or break what reads it. */
export interface HostileFile {
  readonly name: string;
  readonly content: string | Uint8Array<ArrayBuffer>;
}

const dxf = (entities: string) => `0\nSECTION\n2\nENTITIES\n${entities}0\nENDSEC\n0\nEOF\n`;
const pairs = (...all: (string | number)[]) => `${all.join('\n')}\n`;
const line = (i: number) => pairs(0, 'LINE', 8, 'a', 10, i, 20, 0, 11, i, 21, 9);
const svg = (inner: string) =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="10mm" viewBox="0 0 10 10">${inner}</svg>`;
const many = (count: number, one: (i: number) => string, by = '') =>
  Array.from({ length: count }, (_, i) => one(i)).join(by);
const square = '[[0,0],[1,0],[1,1],[0,1],[0,0]]';

function workbook(cells: string, shared = ''): Uint8Array<ArrayBuffer> {
  const sheet = `<worksheet xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main"><sheetData>${cells}</sheetData></worksheet>`;
  const parts: Record<string, string> = {
    '[Content_Types].xml': '<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"/>',
    'xl/workbook.xml':
      '<workbook xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main" xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships"><sheets><sheet name="a" sheetId="1" r:id="rId1"/></sheets></workbook>',
    'xl/_rels/workbook.xml.rels':
      '<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="rId1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/worksheet" Target="worksheets/sheet1.xml"/></Relationships>',
    'xl/worksheets/sheet1.xml': sheet,
    'xl/sharedStrings.xml': `<sst xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main">${shared}</sst>`,
  };
  return zipSync(Object.fromEntries(Object.entries(parts).map(([name, text]) => [name, strToU8(text)])));
}

/** Drawings, tables and workbooks that were found to hang or crash a reader, and their kin. */
export const hostileFiles = (): HostileFile[] => [
  ...[1e300, -1e300, 'NaN', 'Infinity', '1e999'].map((angle) => ({
    name: `arc of ${angle} degrees.dxf`,
    content: dxf(pairs(0, 'ARC', 8, 'a', 10, 0, 20, 0, 40, 5, 50, 0, 51, angle)),
  })),
  ...[1e12, -1e300, 'NaN'].map((end) => ({
    name: `ellipse to ${end}.dxf`,
    content: dxf(pairs(0, 'ELLIPSE', 8, 'a', 10, 0, 20, 0, 11, 5, 21, 0, 40, 0.5, 41, 0, 42, end)),
  })),
  {
    name: 'spline of degree 2000.dxf',
    content: dxf(
      pairs(0, 'SPLINE', 8, 'a', 71, 2000) +
        many(4003, (i) => pairs(40, i)) +
        many(2002, (i) => pairs(10, i, 20, i % 7)),
    ),
  },
  {
    name: 'spline without knots.dxf',
    content: dxf(pairs(0, 'SPLINE', 8, 'a', 71, 3) + many(9, (i) => pairs(10, i, 20, i))),
  },
  { name: 'circle without centre.dxf', content: dxf(pairs(0, 'CIRCLE', 8, 'a', 40, 5)) },
  { name: 'arc without anything.dxf', content: dxf(pairs(0, 'ARC', 8, 'a')) },
  { name: 'line without ends.dxf', content: dxf(pairs(0, 'LINE', 8, 'a')) },
  { name: 'ellipse without axis.dxf', content: dxf(pairs(0, 'ELLIPSE', 8, 'a', 10, 0, 20, 0, 40, 1)) },
  { name: 'vertex alone.dxf', content: dxf(pairs(0, 'VERTEX', 8, 'a', 10, 1, 20, 1)) },
  { name: '80 000 lines.dxf', content: dxf(many(80_000, line)) },
  {
    name: 'a layer for each line.dxf',
    content: dxf(many(2500, (i) => line(i).replace('\na\n', `\nlayer ${i}\n`))),
  },
  {
    name: 'polyline of 200 000 corners.dxf',
    content: dxf(pairs(0, 'LWPOLYLINE', 8, 'a', 90, 200_000) + many(200_000, (i) => pairs(10, i, 20, i % 9))),
  },
  { name: 'numbers only.dxf', content: many(300_000, (i) => `${i}\n`) },
  {
    name: 'nested blocks.dxf',
    content: `0\nSECTION\n2\nBLOCKS\n${many(20_000, (i) => pairs(0, 'BLOCK', 2, `b${i}`))}0\nENDSEC\n0\nEOF\n`,
  },
  { name: '50 000 paths.svg', content: svg(many(50_000, (i) => `<path d="M${i} 0L${i} 5"/>`)) },
  { name: 'repeated document type.svg', content: '<!DOCTYPE svg '.repeat(100_000) },
  {
    name: 'entities.svg',
    content: `<!DOCTYPE svg [<!ENTITY a "aaaa">${many(50, (i) => `<!ENTITY b${i} "&a;&a;">`)}]>${svg('&b1;')}`,
  },
  {
    name: 'path of a million points.svg',
    content: svg(`<path d="M0 0${many(1_000_000, (i) => `L${i % 9} 1`)}"/>`),
  },
  { name: '20 000 groups deep.svg', content: svg('<g>'.repeat(20_000) + '</g>'.repeat(20_000)) },
  {
    name: 'a thousand transforms.svg',
    content: svg(
      many(55, () => `<g transform="${'rotate(1) '.repeat(2000)}">`) +
        '<path d="M0 0L1 1"/>' +
        '</g>'.repeat(55),
    ),
  },
  { name: 'attribute without end.svg', content: `<svg ${'a="'.repeat(200_000)}` },
  {
    name: '70 000 features.geojson',
    content: `{"type":"FeatureCollection","features":[${many(70_000, () => `{"type":"Feature","properties":{},"geometry":{"type":"Polygon","coordinates":[${square}]}}`, ',')}]}`,
  },
  { name: 'two million lists.geojson', content: '['.repeat(2_000_000) },
  {
    name: 'ring of 300 000 corners.geojson',
    content: `{"type":"Polygon","coordinates":[[${many(300_000, (i) => `[${i % 97},${i % 89}]`, ',')}]]}`,
  },
  { name: 'far cell.xlsx', content: workbook('<row r="1048576"><c r="XFD1048576"><v>1</v></c></row>') },
  {
    name: 'far column.xlsx',
    content: workbook('<row r="1"><c r="A1"><v>1</v></c><c r="XFD1"><v>1</v></c></row>'),
  },
  {
    name: 'cells at impossible places.xlsx',
    content: workbook('<row r="1"><c r="ZZZZZ99999999999"><v>1</v></c></row>'),
  },
  {
    name: 'a million strings.xlsx',
    content: workbook(
      '<row r="1"><c r="A1" t="s"><v>0</v></c></row>',
      many(300_000, () => '<si><t>x</t></si>'),
    ),
  },
  { name: 'bomb.xlsx', content: zipSync({ 'xl/worksheets/sheet1.xml': new Uint8Array(80_000_000) }) },
  { name: 'cut off.xlsx', content: workbook('').slice(0, 300) },
  { name: 'no sheets.xlsx', content: zipSync({ 'readme.txt': strToU8('nothing') }) },
  { name: 'heading of dots.csv', content: `kind,id,${'.'.repeat(200_000)}\nfabric,a,1\n` },
  { name: 'heading of blanks.csv', content: `kind,id,${' '.repeat(100_000)}x [y\nfabric,a,1\n` },
  { name: '60 000 columns.csv', content: `kind,id,${many(60_000, (i) => `c${i}`, ',')}\nfabric,a\n` },
  { name: 'a million rows.csv', content: `kind,id\n${'fabric,a\n'.repeat(400_000)}` },
  { name: 'quotes without end.csv', content: `kind,id\n"${'""'.repeat(1_000_000)}` },
  { name: 'prototype.csv', content: 'kind,id,__proto__.x,constructor.prototype.y\nfabric,a,1,2\n' },
  { name: 'deep path.csv', content: `kind,id,${'a.'.repeat(70)}b\nfabric,a,1\n` },
];
