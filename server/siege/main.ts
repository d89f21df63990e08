import { inspect } from 'node:util';
import { siegeByCuts } from './cuts.ts';
import { siegeByFullDisk } from './full-disk.ts';
import { siegeByRequests } from './fuzz.ts';
import { siegeByKills, siegeFirstStarts } from './kills.ts';
import { siegeByReadings } from './readings.ts';
import { newHome, spawnServer } from './running-server.ts';
import { soak } from './soak.ts';

/** Attacks the server as a whole and prints what came of it: all of them, or those that are named. */
const attacks: Readonly<Record<string, () => Promise<unknown>>> = {
  cuts: () => siegeByCuts(30),
  full: () => siegeByFullDisk(200),
  fuzz: async () => {
    const { folder } = await newHome('fuzz');
    const server = await spawnServer(folder).ready;
    const { failures, ...rest } = await siegeByRequests(server, 20_000, Date.now());
    await server.kill();
    return { ...rest, failed: failures.length, first: failures.slice(0, 10) };
  },
  kills: () => siegeByKills(200),
  readings: () => siegeByReadings(1_000_000, 10),
  starts: () => siegeFirstStarts(60),
  soak: async () => {
    const { folder } = await newHome('soak');
    const server = await spawnServer(folder).ready;
    const found = await soak(server, folder, 20, 600_000);
    await server.kill();
    return found;
  },
};

const named = process.argv.slice(2);
for (const [name, attack] of Object.entries(attacks)) {
  if (named.length > 0 && !named.includes(name)) continue;
  const started = performance.now();
  const found = await attack();
  process.stdout.write(`${name}, ${Math.round((performance.now() - started) / 1000)} s: ${inspect(found)}\n`);
}
process.exit(0);
