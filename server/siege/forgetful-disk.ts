import {
  existsSync,
  lstatSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { dirname, join, relative } from 'node:path';
import { realDisk, type Disk } from '../src/repo/embedded/disk.ts';

const PAGE = 8192;

/**
 * A disk that keeps at a power cut only what was synced: of each file what it held at its last sync, of each folder the names it
 * had at its own. What was written since may have got there as well: all of a file, pages of it, or none.
 */
export function createForgetfulDisk(root: string): {
  readonly disk: Disk;
  /** Called at every sync and write, when everything is as it is in that moment. */
  onMoment: () => void;
  /** Lays out what a cut would leave now. @param luck 0-1: share of files of which something unsynced got there */
  layOut(folder: string, luck: number): void;
} {
  /** By the file's own number, for its name may change. */
  const contents = new Map<number, Buffer>();
  const names = new Map<string, Map<string, number>>();
  remember(root);

  function remember(path: string) {
    const about = lstatSync(path);
    if (about.isDirectory()) {
      names.set(path, listing(path));
      for (const name of readdirSync(path)) remember(join(path, name));
    } else contents.set(about.ino, readFileSync(path));
  }
  function listing(path: string): Map<string, number> {
    return new Map(readdirSync(path).map((name) => [name, statSync(join(path, name)).ino]));
  }

  const self = {
    disk: {
      ...realDisk,
      sync(path, handle) {
        self.onMoment();
        realDisk.sync(path, handle);
        const about = statSync(path);
        if (about.isDirectory()) names.set(path, listing(path));
        else {
          contents.set(about.ino, readFileSync(path));
          const folder = dirname(path);
          names.set(folder, (names.get(folder) ?? new Map()).set(path.slice(folder.length + 1), about.ino));
        }
        self.onMoment();
      },
      beforeWrite: () => self.onMoment(),
    } satisfies Disk as Disk,
    onMoment: () => undefined as void,
    layOut(folder: string, luck: number) {
      for (const [path, known] of names) {
        const to = join(folder, relative(root, path));
        mkdirSync(to, { recursive: true });
        for (const [name, ino] of known) {
          const live = join(path, name);
          if (names.has(live) || (existsSync(live) && statSync(live).isDirectory())) continue;
          writeFileSync(join(to, name), whatIsLeft(contents.get(ino) ?? Buffer.alloc(0), live, ino, luck));
        }
      }
    },
  };
  return self;
}

function whatIsLeft(synced: Buffer, live: string, ino: number, luck: number): Buffer {
  if (Math.random() >= luck || !existsSync(live) || statSync(live).ino !== ino) return synced;
  const now = readFileSync(live);
  if (Math.random() < 0.5) return now;
  const mixed = Buffer.from(now);
  for (let at = 0; at < Math.min(now.length, synced.length); at += PAGE)
    if (Math.random() < 0.5) synced.copy(mixed, at, at, Math.min(at + PAGE, synced.length));
  return mixed;
}
