import type { Job } from '@wick/contract/job';

export const processWords: Record<Job['process'], string> = {
  infusion: 'infusion',
  wetLayup: 'bagged wet layup',
  closedMould: 'closed mould',
  bonding: 'core bonding',
};
