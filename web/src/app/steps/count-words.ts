import type { StepCount } from '@wick/contract/steps';

/** How often a step is done in a job. */
export const countWords: Readonly<Record<StepCount, string>> = {
  once: 'once',
  coat: 'for each coat of release',
  gelPass: 'for each pass of gel coat',
  mouldFace: 'once, where the show face lies on the mould',
  bagFace: 'once, where the show face lies under the bag',
  core: 'once, where there is a core',
  ply: 'for each ply',
  layer: 'for each layer of the stack',
  line: 'for each line',
  pleat: 'for each pleat',
  pull: 'for each stage of the pull-down',
  batch: 'for each batch',
  valve: 'for each turn of a valve',
};
