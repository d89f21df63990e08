import { createHash } from 'node:crypto';
import { closeSync, createReadStream, fsyncSync, openSync, renameSync, rmSync, writeSync } from 'node:fs';
import { Unzip, UnzipInflate, Zip, ZipDeflate, ZipPassThrough } from 'fflate';
import { z } from 'zod';
import { ProblemError } from '../problem.ts';

const FORMAT = 'vivid-wick-backup';
const VERSION = 1;
const MANIFEST = 'manifest.json';
const TABLES = 'tables/';
const ENDING = '.ndjson';

const manifestSchema = z.object({
  format: z.literal(FORMAT),
  version: z.number().int(),
  madeAt: z.string(),
  tables: z.array(
    z.object({ name: z.string(), rowCount: z.number().int(), sha256: z.string().regex(/^[0-9a-f]{64}$/) }),
  ),
  /** Sum of all of the above. */
  seal: z.string(),
});
export type BackupManifest = z.infer<typeof manifestSchema>;

type Row = Readonly<Record<string, unknown>>;
type Found = { readonly name: string; rowCount: number; readonly hash: ReturnType<typeof createHash> };

/**
 * Writes a backup: a ZIP of one text a table, a row a line, and a manifest with their counts and sums. It has its name only once it
 * is whole and has been read again.
 */
export async function writeBackup(
  path: string,
  madeAt: string,
  readAll: (onRow: (table: string, row: Row) => void) => Promise<void>,
): Promise<BackupManifest> {
  const unfinished = `${path}.unfinished`;
  const handle = openSync(unfinished, 'w', 0o600);
  try {
    const zip = new Zip((error, chunk) => {
      if (error) throw error;
      writeSync(handle, chunk);
    });
    const found: Found[] = [];
    let file: ZipDeflate | null = null;
    await readAll((table, row) => {
      if (found.at(-1)?.name !== table) {
        file?.push(new Uint8Array(), true);
        file = new ZipDeflate(`${TABLES}${table}${ENDING}`, { level: 3 });
        zip.add(file);
        found.push({ name: table, rowCount: 0, hash: createHash('sha256') });
      }
      const line = Buffer.from(`${JSON.stringify(row)}\n`);
      const own = found.at(-1)!;
      own.rowCount += 1;
      own.hash.update(line);
      file!.push(line);
    });
    (file as ZipDeflate | null)?.push(new Uint8Array(), true);
    const manifest = sealed({
      format: FORMAT,
      version: VERSION,
      madeAt,
      tables: found.map(({ name, rowCount, hash }) => ({ name, rowCount, sha256: hash.digest('hex') })),
    });
    const last = new ZipPassThrough(MANIFEST);
    zip.add(last);
    last.push(Buffer.from(JSON.stringify(manifest, null, 2)), true);
    zip.end();
    fsyncSync(handle);
    await checkBackup(unfinished);
    renameSync(unfinished, path);
    return manifest;
  } catch (error) {
    rmSync(unfinished, { force: true });
    throw error;
  } finally {
    closeSync(handle);
  }
}

/** Reads a backup through. @throws ProblemError BAD_BACKUP where a byte of it is not as it was written */
export async function checkBackup(path: string): Promise<BackupManifest> {
  const found = new Map<string, { rowCount: number; hash: ReturnType<typeof createHash> }>();
  let manifestText: string | null = null;
  const take = createUnpacker((name, line) => {
    if (name === MANIFEST) {
      manifestText = `${manifestText ?? ''}${line.toString('utf8')}`;
      return;
    }
    const own = found.get(name) ?? { rowCount: 0, hash: createHash('sha256') };
    found.set(name, own);
    own.rowCount += 1;
    own.hash.update(line);
  });
  for await (const piece of piecesOf(path)) take(piece);
  const manifest = readManifest(manifestText);
  for (const { name, rowCount, sha256 } of manifest.tables) {
    const own = found.get(`${TABLES}${name}${ENDING}`);
    if (own?.rowCount !== rowCount || own.hash.digest('hex') !== sha256)
      throw bad(`Its table “${name}” is not as it was written: the file is cut or was altered.`);
  }
  if (found.size !== manifest.tables.length) throw bad('There is more in it than was written.');
  return manifest;
}

/** The rows of a backup, table after table, as they were written. To be checked before. */
export async function* rowsOf(path: string): AsyncGenerator<readonly [string, Row]> {
  const waiting: (readonly [string, Row])[] = [];
  const take = createUnpacker((name, line) => {
    if (name.startsWith(TABLES))
      waiting.push([name.slice(TABLES.length, -ENDING.length), JSON.parse(line.toString('utf8')) as Row]);
  });
  for await (const piece of piecesOf(path)) {
    take(piece);
    yield* waiting.splice(0);
  }
}

function readManifest(text: string | null): BackupManifest {
  let raw: unknown;
  try {
    raw = JSON.parse(text ?? '');
  } catch {
    throw bad('It has no manifest: the file is cut, or is no backup of this program.');
  }
  const read = manifestSchema.safeParse(raw);
  if (!read.success) throw bad('Its manifest is not one of this program. Choose another file.');
  if (read.data.version > VERSION)
    throw bad('It was made by a newer version of this program. Update this one, then restore it.');
  const { seal, ...rest } = read.data;
  if (sealed(rest).seal !== seal) throw bad('Its manifest is not as it was written: the file was altered.');
  return read.data;
}

const sealed = (rest: Omit<BackupManifest, 'seal'>): BackupManifest => ({
  ...rest,
  seal: createHash('sha256')
    .update(JSON.stringify([rest.version, rest.madeAt, rest.tables]))
    .digest('hex'),
});

const bad = (why: string) =>
  new ProblemError('BAD_BACKUP', `The backup is not used. ${why} Nothing was changed.`);

interface Piece {
  readonly bytes: Uint8Array;
  readonly isLast: boolean;
}

async function* piecesOf(path: string): AsyncGenerator<Piece> {
  for await (const bytes of createReadStream(path)) yield { bytes: bytes as Buffer, isLast: false };
  yield { bytes: new Uint8Array(), isLast: true };
}

/** Unpacks an archive piece by piece, and tells its texts line by line, the line's end included. */
function createUnpacker(onLine: (name: string, line: Buffer) => void): (piece: Piece) => void {
  const archive = new Unzip((file) => {
    let rest: Buffer = Buffer.alloc(0);
    file.ondata = (error, chunk, isFinal) => {
      if (error) throw error;
      rest = Buffer.concat([rest, chunk]);
      for (let end = rest.indexOf(NEWLINE); end >= 0; end = rest.indexOf(NEWLINE)) {
        onLine(file.name, rest.subarray(0, end + 1));
        rest = rest.subarray(end + 1);
      }
      if (isFinal && rest.length > 0) onLine(file.name, rest);
    };
    file.start();
  });
  archive.register(UnzipInflate);
  return ({ bytes, isLast }) => {
    try {
      archive.push(bytes, isLast);
    } catch {
      throw bad('It does not unpack: the file is cut or damaged, or is no backup.');
    }
  };
}
const NEWLINE = 10;
