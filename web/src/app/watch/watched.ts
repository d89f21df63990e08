import { api } from '../../data/api.ts';
import { stream } from '../../data/stream.ts';
import { createWatchedRuns } from './watched-runs.ts';

/** Runs that the server looks after, whatever page is open. */
export const watched = createWatchedRuns({ list: api.listWatches, stream });
