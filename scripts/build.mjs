import { buildAll, requireNode } from './setup.mjs';

/** Builds the pages and the server, each unless it was built of just its sources. */
requireNode();
await buildAll();
