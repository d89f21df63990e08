import type { Read } from '../read.ts';
import { unzipSync } from 'fflate';
import readWorkbook from 'read-excel-file/universal';
import writeWorkbook from 'write-excel-file/universal';
import type { Material } from '@wick/contract/materials';
import { readSheets, sheetsOf, type Cell } from './sheets.ts';

const MAX_WORKBOOK_BYTES = 4_000_000;
/** More than this unpacked is no library, but a file made to fill the memory. */
const MAX_UNPACKED = 60_000_000;

/** The library as an XLSX workbook, one sheet a kind. */
export function workbookOf(materials: readonly Material[]): Promise<Blob> {
  const sheets = sheetsOf(materials).map(({ name, rows }) => ({
    sheet: name,
    data: rows.map((row, n) =>
      row.map((value) =>
        value === null ? null : { value, ...(n === 0 ? { fontWeight: 'bold' as const } : {}) },
      ),
    ),
    stickyRowsCount: 1,
  }));
  return writeWorkbook(sheets).toBlob();
}

/** Reads a workbook that was written as above, or by hand under the same headings. */
export async function readLibraryWorkbook(bytes: Uint8Array): Promise<Read<Material[]>> {
  if (bytes.length > MAX_WORKBOOK_BYTES)
    return refuse('The workbook is larger than 4 MB; a library never is. Check that it is the right one.');
  const packed = unpackedSize(bytes);
  if (packed === null)
    return refuse(
      'The file does not open as an XLSX workbook; it may be cut off or of another kind. Save it again as XLSX.',
    );
  if (packed > MAX_UNPACKED)
    return refuse(
      'The workbook unpacks to far more than a library holds. It was left alone; check where it comes from.',
    );
  if (reachesFar(bytes))
    return refuse(
      `A sheet of the workbook has cells beyond row ${MOST_ROWS} or column ${MOST_COLUMNS}. Delete what stands far out, and save it again.`,
    );
  try {
    const sheets = await readWorkbook(new Blob([bytes.slice()]));
    return readSheets(sheets.map(({ sheet, data }) => ({ name: sheet, rows: data as unknown as Cell[][] })));
  } catch {
    return refuse('The workbook has no sheets that can be read. Save it again as XLSX.');
  }
}

function refuse(message: string): { ok: false; code: 'BAD_LIBRARY'; message: string } {
  return { ok: false, code: 'BAD_LIBRARY', message };
}

/** No library reaches so far. */
const MOST_ROWS = 5000;
const MOST_COLUMNS = 400;

/** Whether a cell stands where a table up to it would fill the memory. */
function reachesFar(bytes: Uint8Array): boolean {
  const sheets = unzipSync(bytes, { filter: ({ name }) => /^xl\/worksheets\/[^/]+\.xml$/.test(name) });
  return Object.values(sheets).some((sheet) => {
    for (const [, letters, row] of new TextDecoder().decode(sheet).matchAll(/\br="([A-Z]{0,4})(\d{1,9})"/g)) {
      const column = Array.from(letters!).reduce((sum, letter) => 26 * sum + letter.charCodeAt(0) - 64, 0);
      if (Number(row) > MOST_ROWS || column > MOST_COLUMNS) return true;
    }
    return false;
  });
}

/** As the archive itself says, without unpacking anything; null where it is no archive. */
function unpackedSize(bytes: Uint8Array): number | null {
  let size = 0;
  try {
    unzipSync(bytes, {
      filter: ({ originalSize }) => {
        size += originalSize;
        return false;
      },
    });
    return size;
  } catch {
    return null;
  }
}
