import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

/** What is built, of which sources: `kept` is a file of the built folder that tells. */
const parts = {
  web: { from: ['core', 'contract', 'plan', 'web'], into: 'web/dist' },
  server: { from: ['core', 'contract', 'plan', 'server'], into: 'server/dist' },
};
export const partNames = Object.keys(parts);

/** Whether a part was built of just what its sources hold now. */
export const isBuilt = (root, part) => {
  const mark = markFile(root, part);
  return existsSync(mark) && readFileSync(mark, 'utf8') === fingerprint(root, part);
};

/** Writes down that a part was built of the sources with this fingerprint, taken before it was built. */
export const setBuilt = (root, part, print) => writeFileSync(markFile(root, part), print);

const markFile = (root, part) => join(root, parts[part].into, '.built-of');

/** Of the content of all files that a build may read, and of the packages it reads them with. */
export function fingerprint(root, part) {
  const hash = createHash('sha256').update(readFileSync(join(root, 'package-lock.json')));
  for (const folder of parts[part].from)
    for (const path of filesIn(root, folder)) hash.update(path).update(readFileSync(join(root, path)));
  return hash.digest('hex');
}

/** Not read by any build. */
const isLeftOut = (name) => /^(node_modules|dist|types|bench|siege)$|\.test\.ts$|\.tsbuildinfo$/.test(name);

const filesIn = (root, folder) =>
  readdirSync(join(root, folder), { withFileTypes: true })
    .filter(({ name }) => !isLeftOut(name))
    .sort((a, b) => (a.name < b.name ? -1 : 1))
    .flatMap((entry) => {
      const path = `${folder}/${entry.name}`;
      return entry.isDirectory() ? filesIn(root, path) : [path];
    });
