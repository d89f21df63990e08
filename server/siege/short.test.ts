import { describe, expect, test } from '@jest/globals';
import { siegeByCuts } from './cuts.ts';
import { siegeByFullDisk } from './full-disk.ts';
import { siegeByRequests } from './fuzz.ts';
import { siegeByKills, siegeFirstStarts } from './kills.ts';
import { siegeByReadings } from './readings.ts';
import { newHome, spawnServer } from './running-server.ts';
import { soak } from './soak.ts';

/** The short form of the siege; `npm run siege` is the whole of it. */
describe('a short siege', () => {
  test('no acknowledged write is lost by kills', async () => {
    const { acknowledged, lost } = await siegeByKills(1);
    expect(acknowledged).toBeGreaterThan(5);
    expect(lost).toBe(0);
  }, 120_000);

  test('no reading is lost by kills, none is kept twice', async () => {
    const found = await siegeByReadings(6000, 1);
    expect(found).toMatchObject({ lost: 0, kept: 6000, keptTwice: 0 });
  }, 120_000);

  test('nor by power cuts, after each of which the database opens whole', async () => {
    expect(await siegeByCuts(2)).toMatchObject({ cuts: 2, lost: 0, closed: 0 });
  }, 120_000);

  test('a first start that is cut short leaves no half workshop', async () => {
    expect(await siegeFirstStarts(1, 5000)).toMatchObject({ halves: 0, whole: 1 });
  }, 120_000);

  test('on a full disk reads go on, writes are answered 507, and room heals it', async () => {
    const found = await siegeByFullDisk(25);
    expect(found).toMatchObject({ readsFailed: 0, writesOdd: 0, healed: true, lost: 0 });
    expect(found.writesRefused).toBeGreaterThan(15);
  }, 120_000);

  test('hostile requests over all routes are answered, and with no fault of the server’s own', async () => {
    const { folder } = await newHome('siege');
    const server = await spawnServer(folder).ready;
    try {
      const { failures, requests } = await siegeByRequests(server, 500, 7);
      expect(failures).toEqual([]);
      expect(requests).toBeGreaterThanOrEqual(500);
      const found = await soak(server, folder, 5, 2000);
      expect(found.failures).toBe(0);
    } finally {
      await server.kill();
    }
  }, 180_000);
});
