import type { StoredJob } from '@wick/contract/api';
import { createJobSession, type JobSession, type SessionParts } from './job-session.ts';

export interface SessionsParts extends SessionParts {
  readonly read: (jobId: string) => Promise<StoredJob>;
}

/** Longest that opening a job waits for what an earlier session of it still writes, ms. */
const PATIENCE = 4000;

/** Opens sessions, one a job at a time: a job left a moment ago is written before it is read again. */
export function createSessions(parts: SessionsParts) {
  const leaving = new Map<string, { session: JobSession; done: Promise<void> }>();

  return {
    async open(jobId: string): Promise<JobSession> {
      const earlier = leaving.get(jobId);
      if (earlier) {
        await Promise.race([earlier.done, new Promise((resolve) => setTimeout(resolve, PATIENCE))]);
        // Two writers of one job would overtake each other; the draft carries what is left.
        earlier.session.abandon();
        leaving.delete(jobId);
      }
      const [stored] = await Promise.all([parts.read(jobId), parts.drafts.adopt(jobId)]);
      return createJobSession(stored, parts);
    },
    leave(session: JobSession): Promise<void> {
      const done = session.leave().finally(() => {
        if (leaving.get(session.id)?.session === session) leaving.delete(session.id);
      });
      leaving.set(session.id, { session, done });
      return done;
    },
  };
}
