import type { Material } from '@wick/contract/materials';
import {
  MAX_DRAWING_BYTES,
  partOfDrawing,
  refuse,
  type Drawing,
  type DrawingChoice,
  type DrawnPart,
} from '@wick/plan/files/drawings/drawing';
import { readDxf } from '@wick/plan/files/drawings/dxf-in';
import { readGeoJson } from '@wick/plan/files/drawings/geojson-in';
import { readSvg } from '@wick/plan/files/drawings/svg-in';
import { readCsv } from '@wick/plan/files/library/sheets';
import { readLibraryWorkbook } from '@wick/plan/files/library/workbook';
import { refuse as refuseFile, type Read } from '@wick/plan/files/read';
import { readViscosityCsv, type ViscosityPoints } from '@wick/plan/files/viscosity-csv';

/** What is asked of a file, beside the page. */
export type FileTask =
  | { readonly kind: 'drawing'; readonly file: File }
  | { readonly kind: 'part'; readonly drawing: Drawing; readonly choice: DrawingChoice }
  | { readonly kind: 'library'; readonly file: File }
  | { readonly kind: 'viscosity'; readonly file: File };

export interface FileAnswers {
  readonly drawing: Drawing;
  readonly part: DrawnPart;
  readonly library: Material[];
  readonly viscosity: ViscosityPoints;
}

const MAX_TABLE_BYTES = 4_000_000;

export async function runFileTask(task: FileTask): Promise<Read<unknown>> {
  switch (task.kind) {
    case 'drawing':
      return readDrawing(task.file);
    case 'part':
      return partOfDrawing(task.drawing, task.choice);
    case 'library':
      return readLibrary(task.file);
    case 'viscosity':
      return task.file.size > MAX_TABLE_BYTES ? tooLarge() : readViscosityCsv(await task.file.text());
  }
}

/** Reads a drawing by the ending of its name. */
async function readDrawing(file: File): Promise<Read<Drawing>> {
  if (file.size > MAX_DRAWING_BYTES)
    return refuse('It is larger than 8 MB. Save only the part’s outline and import that.');
  const ending = endingOf(file);
  if (ending === 'dxf') return readDxf(await file.text());
  if (ending === 'svg') return readSvg(await file.text());
  if (ending === 'geojson' || ending === 'json') return readGeoJson(await file.text());
  return refuse('Drawings are read as DXF, SVG or GeoJSON. Save it as one of these.');
}

async function readLibrary(file: File): Promise<Read<Material[]>> {
  if (file.size > MAX_TABLE_BYTES) return tooLarge();
  return endingOf(file) === 'xlsx'
    ? readLibraryWorkbook(new Uint8Array(await file.arrayBuffer()))
    : readCsv(await file.text());
}

const tooLarge = () =>
  refuseFile('TOO_LARGE', 'It is larger than 4 MB; such a table never is. Check that it is the right one.');
const endingOf = ({ name }: File) => name.toLowerCase().split('.').pop();
