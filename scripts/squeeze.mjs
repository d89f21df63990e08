import { existsSync, readdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { setPriority } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { promisify } from 'node:util';
import { brotliCompress, constants, gzip } from 'node:zlib';

/**
 * Lays a compressed form beside each file of the built pages, for browsers on the network. The server sends it as soon as it is there, so
 * this is done when the program already answers, and yields to whatever else the machine has to do.
 */
const folder = fileURLToPath(new URL('../web/dist/', import.meta.url));
const IDLE = 15;
/** A smaller file travels in one packet as it is. */
const LEAST = 1000;

const brotli = (content) =>
  promisify(brotliCompress)(content, {
    params: {
      [constants.BROTLI_PARAM_QUALITY]: constants.BROTLI_MAX_QUALITY,
      [constants.BROTLI_PARAM_SIZE_HINT]: content.length,
    },
  });
const forms = { '.br': brotli, '.gz': (content) => promisify(gzip)(content, { level: 9 }) };

setPriority(IDLE);
const files = readdirSync(folder, { recursive: true })
  .map((name) => join(folder, String(name)))
  .filter((path) => /\.(js|css|html|svg|webmanifest)$/.test(path));
for (const path of files) {
  const content = readFileSync(path);
  if (content.length < LEAST) continue;
  for (const [ending, compress] of Object.entries(forms)) {
    if (existsSync(path + ending)) continue;
    // Under another name until it is whole: half of it is never sent.
    writeFileSync(`${path}${ending}.part`, await compress(content));
    renameSync(`${path}${ending}.part`, path + ending);
  }
}
