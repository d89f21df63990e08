import type { JobAction, JobTrigger } from '@wick/contract/job/job';
import type { LaidJob } from '@wick/plan/job/laid';

/** What an opening or closing can wait for, as the list offers it. */
export const triggerKinds: readonly { readonly kind: JobTrigger['kind']; readonly label: string }[] = [
  { kind: 'passed', label: 'front has passed' },
  { kind: 'time', label: 'minute, from first mix' },
  { kind: 'opened', label: 'has opened' },
  { kind: 'drawn', label: 'resin drawn' },
  { kind: 'zoneFull', label: 'zone is wet' },
  { kind: 'full', label: 'whole part is wet' },
];

/** By which part of a line the front counts as having passed it. */
export const passings = [
  { value: 'first', label: 'its first place' },
  { value: 'middle', label: 'its middle' },
  { value: 'last', label: 'its last place' },
];

/** A fresh trigger of a kind, pointing at something that is there; null when the job has nothing for it to wait on. */
export function freshTrigger(kind: JobTrigger['kind'], job: LaidJob, own: string): JobTrigger | null {
  switch (kind) {
    case 'passed':
      return { kind, what: own, at: 'middle', distance: 0, delay: 0 };
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

export const closesPrevious = (job: LaidJob) =>
  job.lines.some(
    (line) =>
      line.kind === 'feed' &&
      line.actions.some(({ opening, when }) => opening === 0 && when.kind === 'opened'),
  );
