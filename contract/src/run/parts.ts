import { z } from 'zod';

/** Of a run, of an entry and of what entries name. */
export const runId = z.string().regex(/^[A-Za-z0-9_-]{1,40}$/, 'an id is up to 40 letters, digits, - or _');
export const personName = z.string().trim().max(40);
