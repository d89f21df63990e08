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
