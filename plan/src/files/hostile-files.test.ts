import { expect, test } from '@jest/globals';
import { partOfDrawing } from './drawings/drawing.ts';
import { readDxf } from './drawings/dxf-in.ts';
import { readGeoJson } from './drawings/geojson-in.ts';
import { readSvg } from './drawings/svg-in.ts';
import { readCsv } from './library/sheets.ts';
import { readLibraryWorkbook } from './library/workbook.ts';
import type { Read } from './read.ts';
import { hostileFiles, type HostileFile } from './test/hostile-files.ts';

async function read({ name, content }: HostileFile): Promise<Read<unknown>> {
  const text = () => (typeof content === 'string' ? content : new TextDecoder().decode(content));
  switch (name.split('.').pop()) {
    case 'dxf':
      return readDxf(text());
    case 'svg':
      return readSvg(text());
    case 'geojson':
      return readGeoJson(text());
    case 'csv':
      return readCsv(text());
    default:
      return readLibraryWorkbook(content as Uint8Array<ArrayBuffer>);
  }
}

test.each(hostileFiles())(
  '$name is refused with a sentence, or comes to no part',
  async (file) => {
    const answer = await read(file);
    if (!answer.ok) return expect(answer.message).toMatch(/^.{20,400}\.$/s);
    const choice = { roles: ['part' as const], unitLength: 1e-3, tolerance: 1e-3, closeGaps: true };
    const part = partOfDrawing(answer.value as Parameters<typeof partOfDrawing>[0], choice);
    expect(part.ok ? part.value.outline : null).toBeNull();
  },
  5000,
);
