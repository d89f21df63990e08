import type { Job, JobAction, JobTrigger } from '@wick/contract/job';

/** What an opening or closing can wait for, as the list offers it. */
export const triggerKinds: readonly { readonly kind: JobTrigger['kind']; readonly label: string }[] = [
  { kind: 'passed', label: 'front has passed' },
  { kind: 'time', label: 'minute, from first mix' },
  { kind: 'opened', label: 'has opened' },
  { kind: 'drawn', label: 'resin drawn' },
  { kind: 'zoneFull', label: 'zone is wet' },
  { kind: 'full', label: 'whole part is wet' },
];

/** A fresh trigger of a kind, pointing at something that is there; null when the job has nothing for it to wait on. */
export function freshTrigger(kind: JobTrigger['kind'], job: Job, own: string): JobTrigger | null {
  switch (kind) {
    case 'passed':
      return { kind, what: own, distance: 0, delay: 0 };
    case 'time':
      return { kind, time: 1800 };
    case 'opened': {
      const other = job.lines.find((line) => line.id !== own && line.kind === 'feed');
      return other ? { kind, what: other.id, delay: 0 } : null;
    }
    case 'drawn':
      return { kind, mass: 5, delay: 0 };
    case 'zoneFull':
      return job.zones[0] ? { kind, zone: job.zones[0].id, delay: 0 } : null;
    case 'full':
      return { kind, delay: 0 };
  }
}

export function doingWords({ opening }: Pick<JobAction, 'opening'>): string {
  if (opening === 0) return 'shuts';
  return opening === 1 ? 'opens' : `throttles to ${Math.round(100 * opening)} %`;
}

/** Both schools: with the previous line shut as the next opens, or left open. */
export function closePrevious(job: Job, close: boolean): Job {
  const feeds = job.lines.filter((line) => line.kind === 'feed');
  return {
    ...job,
    lines: job.lines.map((line) => {
      const next = feeds[feeds.findIndex(({ id }) => id === line.id) + 1];
      const isSchool = ({ opening, when }: JobAction) => opening === 0 && when.kind === 'opened';
      if (line.kind !== 'feed') return line;
      const others = line.actions.filter((action) => !isSchool(action));
      const shut: JobAction = { opening: 0, when: { kind: 'opened', what: next?.id ?? '', delay: 0 } };
      return { ...line, actions: close && next ? [...others, shut] : others };
    }),
  };
}

export const closesPrevious = (job: Job) =>
  job.lines.some(
    (line) =>
      line.kind === 'feed' &&
      line.actions.some(({ opening, when }) => opening === 0 && when.kind === 'opened'),
  );
