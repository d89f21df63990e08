import { existsSync, readFileSync } from 'node:fs';

/**
 * Which packages of a lock file are not installed, by what npm says it laid down: versions and checksums, not dates.
 * @param forAll with what only development needs
 * @returns paths of packages that lack, or are there in another version
 */
export function missingPackages(root, forAll) {
  const wanted = packagesOf(`${root}package-lock.json`);
  const there = packagesOf(`${root}node_modules/.package-lock.json`);
  return Object.entries(wanted).filter(([path, own]) => {
    if (!path.startsWith('node_modules/') && !path.includes('/node_modules/')) return false;
    const found = there[path];
    if (found) return found.version !== own.version || found.integrity !== own.integrity;
    // What is made for other machines is left out by npm.
    if (own.optional) return false;
    return forAll || !(own.dev || own.devOptional || own.peer);
  });
}

/** How many of the packages of a lock file have been laid down so far, and of how many. */
export function countPackages(root) {
  const paths = Object.entries(packagesOf(`${root}package-lock.json`))
    .filter(([path, own]) => path.includes('node_modules/') && !own.dev && !own.optional && !own.link)
    .map(([path]) => path);
  return {
    done: paths.filter((path) => existsSync(`${root}${path}/package.json`)).length,
    all: paths.length,
  };
}

function packagesOf(lockFile) {
  if (!existsSync(lockFile)) return {};
  try {
    return JSON.parse(readFileSync(lockFile, 'utf8')).packages ?? {};
  } catch {
    // Cut short while it was written: nothing of it counts.
    return {};
  }
}
