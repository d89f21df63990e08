import { createBackupRepo } from './repo/backup-repo.ts';
import { makeEmbedded } from './repo/database.ts';
import { wordsOf } from './repo/embedded/folder-error.ts';
import { rowsOf } from './services/backup/backup-file.ts';
import { restorePhotoFiles } from './services/photos/photo-files.ts';
import { seedIfEmpty } from './services/seed.ts';

/** The process of makeDatabase: where to, and from which backup into which folder of pictures, if from one. */
const [, , path = '', backup, photos] = process.argv;

async function make() {
  // Left alone by the process that asked for it, it is of no use.
  process.on('disconnect', () => process.exit(1));
  if (!process.connected) process.exit(1);
  const { database, close } = await makeEmbedded(path);
  if (backup === undefined) await seedIfEmpty(database);
  else {
    await createBackupRepo(database).writeAll(rowsOf(backup));
    if (photos !== undefined) await restorePhotoFiles(photos, rowsOf(backup));
  }
  await close();
  process.exit(0);
}

await make().catch((error: unknown) => {
  process.stderr.write(wordsOf(error));
  process.exit(1);
});
