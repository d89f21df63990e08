import { register } from 'node:module';

/** In every process of the unit tests: TypeScript as it is written, and Jest's own words for whoever imports them. */
register('./hooks.mjs', import.meta.url);
