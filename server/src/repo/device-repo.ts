import { and, asc, desc, eq, lt, or, sql } from 'drizzle-orm';
import type { Database } from './database.ts';
import { audit, devices } from './tables.ts';

export type Device = typeof devices.$inferSelect;
export type NewDevice = Pick<Device, 'id' | 'name' | 'access' | 'linkId' | 'wordHash' | 'wordSince'>;
export type DeviceRepo = ReturnType<typeof createDeviceRepo>;

/** Lines of the audit list that are kept. */
const MOST_LINES = 5000;

/** Devices that were let in, and the list of who was. */
export function createDeviceRepo(database: Database) {
  return {
    async list(): Promise<Device[]> {
      return database.select().from(devices).orderBy(asc(devices.addedAt));
    },

    async find(id: string): Promise<Device | null> {
      const [row] = await database.select().from(devices).where(eq(devices.id, id));
      return row ?? null;
    },

    async add(device: NewDevice): Promise<void> {
      await database.insert(devices).values(device);
    },

    /** @param earlierHash of the word that stays good until the new one is shown. @returns whether the word was still the one expected */
    async changeWord(
      id: string,
      from: string,
      to: Pick<Device, 'wordHash' | 'earlierHash' | 'wordSince'>,
    ): Promise<boolean> {
      const rows = await database
        .update(devices)
        .set({ ...to, hasShownWord: false, seenAt: sql`now()` })
        .where(and(eq(devices.id, id), eq(devices.wordHash, from)))
        .returning({ id: devices.id });
      return rows.length > 0;
    },

    async noteShown(id: string): Promise<void> {
      await database.update(devices).set({ hasShownWord: true }).where(eq(devices.id, id));
    },

    /** With everything that came in by it, where it is a link. */
    async remove(id: string): Promise<boolean> {
      const rows = await database
        .delete(devices)
        .where(or(eq(devices.id, id), eq(devices.linkId, id)))
        .returning({ id: devices.id });
      return rows.length > 0;
    },

    async note(line: { what: string; device: string | null; address: string }): Promise<void> {
      const [row] = await database.insert(audit).values(line).returning({ order: audit.order });
      if (row && row.order % 100 === 0)
        await database.delete(audit).where(lt(audit.order, row.order - MOST_LINES));
    },

    /** Newest first. */
    async notes(count: number) {
      return database.select().from(audit).orderBy(desc(audit.order)).limit(count);
    },
  };
}
