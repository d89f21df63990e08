import type { LearnedSide } from '@wick/contract/material/learned';
import type { MouldSide } from '@wick/contract/mould';
import type {
  FindingKind,
  FindingPattern,
  FindingSide,
  LessonTarget,
  PartOutcome,
} from '@wick/contract/run/review-bodies';

export const findingNames: Readonly<Record<FindingKind, string>> = {
  drySpot: 'Dry spot',
  pinholes: 'Pinholes',
  bridge: 'Bridge',
  richCorner: 'Rich corner',
  print: 'Print-through',
  race: 'Race',
  dryCore: 'Core not wetted',
  soft: 'Soft place',
  stain: 'Stain',
  other: 'Something else',
};

/** How it is told from others by eye. Common practice, no source. */
export const findingSigns: Readonly<Record<FindingKind, string>> = {
  drySpot: 'white bundles, no resin between fibres',
  pinholes: 'small holes in the face',
  bridge: 'hollow behind fabric that spans a corner',
  richCorner: 'resin without fibre in a corner',
  print: 'weave, core or line shows on the face',
  race: 'resin ran ahead along here',
  dryCore: 'no resin in holes or slits of the core',
  soft: 'takes a thumbnail, or smells',
  stain: 'colour, streak, foreign matter',
  other: 'say what in the note',
};

export const sideNames: Readonly<Record<FindingSide, string>> = {
  bag: 'bag side',
  mould: 'mould side',
  through: 'right through',
  edge: 'at the edge',
};

export const patternNames: Readonly<Record<FindingPattern, string>> = {
  even: 'evenly spread',
  fan: 'in a fan from one place',
  line: 'in a line',
  scattered: 'here and there',
};

export const outcomeNames: Readonly<Record<PartOutcome, string>> = {
  good: 'good',
  rework: 'rework',
  scrap: 'scrap',
};

export const targetNames: Readonly<Record<LessonTarget, string>> = {
  plan: 'the plan',
  stack: 'the stack',
  steps: 'the steps',
  mould: 'the mould',
  library: 'the library',
};

export const learnedNames: Readonly<Record<LearnedSide, string>> = {
  permeability: 'permeability',
  viscosity: 'viscosity',
  gelTime: 'gel time',
  compaction: 'fibre fraction under vacuum',
};

export const mouldSideNames: Readonly<Record<MouldSide, string>> = {
  leak: 'what its bags let in',
  drawn: 'resin drawn over the plan',
};
