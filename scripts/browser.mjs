import { existsSync } from 'node:fs';

/** Debian's Chromium without a window of its own draws the same pages with a fifth less work; the one with a window does as well. */
const PATHS = ['/usr/bin/chromium-headless-shell', '/usr/bin/chromium'];

/** The browser that journeys drive: the one named by CHROMIUM, else the first that is there. */
export const browserPath = () => process.env.CHROMIUM ?? PATHS.find((path) => existsSync(path)) ?? PATHS[0];

/** The one that journeys run fastest in is there, or another was asked for. */
export const hasBrowser = () => process.env.CHROMIUM !== undefined || existsSync(PATHS[0]);
