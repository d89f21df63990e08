import { z } from 'zod';

/** Every failure the API can answer with: HTTP status and a title; the detail says what, where and what to do. */
export const errorCatalogue = {
  NOT_JSON: { status: 400, title: 'The file is not JSON' },
  BAD_JOB: { status: 422, title: 'The job cannot be used as it is' },
  BAD_ADDRESS: { status: 400, title: 'The request cannot be understood' },
  WRONG_TYPE: { status: 415, title: 'The request is of a kind that is not taken' },
  NOT_LET_IN: { status: 401, title: 'This device is not let in' },
  NOT_ALLOWED: { status: 403, title: 'That is not allowed from here' },
  TOO_OFTEN: { status: 429, title: 'Too many tries' },
  BAD_REQUEST: { status: 422, title: 'Something in the request is missing or wrong' },
  NEWER_VERSION: { status: 422, title: 'The file comes from a newer version' },
  TOO_LARGE: { status: 413, title: 'The file is too large' },
  NOT_FOUND: { status: 404, title: 'There is no such thing here' },
  STALE: { status: 409, title: 'It was changed elsewhere meanwhile' },
  IN_USE: { status: 409, title: 'Something still uses it' },
  BAD_LIBRARY: { status: 422, title: 'The library file cannot be used as it is' },
  BAD_DRAWING: { status: 422, title: 'The drawing cannot be used as it is' },
  DISK_FULL: { status: 507, title: 'The disk is full' },
  BAD_BACKUP: { status: 422, title: 'The backup cannot be used as it is' },
  BAD_WORD: { status: 401, title: 'The word of this instrument is not good' },
  BAD_READING: { status: 422, title: 'The readings cannot be used as they are' },
  BAD_PHOTO: { status: 422, title: 'The picture cannot be used' },
  DAMAGED: { status: 503, title: 'The database is damaged' },
  STOPPED: { status: 503, title: 'The database had to be opened anew' },
  UNEXPECTED: { status: 500, title: 'The program made a mistake' },
} as const;

export type ErrorCode = keyof typeof errorCatalogue;

/** RFC 9457 problem details. */
export const problemSchema = z.object({
  code: z.string(),
  title: z.string(),
  status: z.number(),
  detail: z.string(),
  /** What is stored now, with a stale write. */
  current: z.unknown().optional(),
});

export type Problem = z.infer<typeof problemSchema>;
