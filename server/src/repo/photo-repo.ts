import type { Photo } from '@wick/contract/run/photo';
import { and, count, eq } from 'drizzle-orm';
import type { Database } from './database.ts';
import { photos } from './tables.ts';

export type PhotoRepo = ReturnType<typeof createPhotoRepo>;

/** What is known of the pictures of runs. */
export function createPhotoRepo(database: Database) {
  const asPhoto = ({ id, runId, width, height, byteCount }: typeof photos.$inferSelect): Photo => ({
    ...{ id, runId, width, height, byteCount },
  });
  async function find(runId: string, id: string): Promise<Photo | null> {
    const [row] = await database
      .select()
      .from(photos)
      .where(and(eq(photos.runId, runId), eq(photos.id, id)));
    return row ? asPhoto(row) : null;
  }

  return {
    find,
    async count(runId: string): Promise<number> {
      const [row] = await database.select({ n: count() }).from(photos).where(eq(photos.runId, runId));
      return row?.n ?? 0;
    },
    /** One that is known by its id stays as it is. */
    async add(photo: Photo): Promise<Photo> {
      await database.insert(photos).values(photo).onConflictDoNothing();
      return (await find(photo.runId, photo.id)) ?? photo;
    },
  };
}
