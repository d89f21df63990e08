import type { Job } from '@wick/contract/job/job';

export type ProcessId = Job['process'];
export type StageId = 'part' | 'laminate' | 'stack' | 'lines' | 'resin' | 'vacuum' | 'run' | 'review';

/** What differs between the ways to get resin into fibre. */
export interface Process {
  /** "bagged wet layup" */
  readonly name: string;
  /** Stages that have something to ask here, in the order of work. */
  readonly stages: readonly StageId[];
  /** Resin is drawn through lines, so there is a front to forecast, and rules to check for its lines; else why not. */
  readonly front: { readonly isDrawn: true } | { readonly isDrawn: false; readonly reason: string };
  /** The bag presses with all it has, and nothing holds the laminate looser than that. */
  readonly pressesAll: boolean;
  /** Taken where nobody has entered them; s, m, Pa absolute. Common practice, no source. */
  readonly usual: {
    readonly hoseFillDuration: number;
    readonly hoseLength: number;
    readonly ventPressure: number;
  };
}

const allStages: readonly StageId[] = [
  'part',
  'laminate',
  'stack',
  'lines',
  'resin',
  'vacuum',
  'run',
  'review',
];
const withoutLines = allStages.filter((stage) => stage !== 'lines');
const wettedByHand = {
  stages: withoutLines,
  front: {
    isDrawn: false,
    reason:
      'Wetted by hand: no resin is drawn through lines, so there is no front to forecast. Plan, plies, cut list and resin hold all the same.',
  },
  pressesAll: false,
  usual: { hoseFillDuration: 0, hoseLength: 0, ventPressure: 2000 },
} as const;
const drawnThrough = {
  stages: allStages,
  front: { isDrawn: true },
  usual: { hoseFillDuration: 60, hoseLength: 2, ventPressure: 2000 },
} as const;

export const processes: Readonly<Record<ProcessId, Process>> = {
  infusion: { name: 'infusion', pressesAll: true, ...drawnThrough },
  wetLayup: { name: 'bagged wet layup', ...wettedByHand },
  closedMould: { name: 'closed mould', pressesAll: false, ...drawnThrough },
  bonding: { name: 'core bonding', ...wettedByHand },
};

export const processOf = ({ process }: Pick<Job, 'process'>): Process => processes[process];

/** Resin is drawn through it: there is a front. */
export const hasFront = (job: Pick<Job, 'process'>): boolean => processOf(job).front.isDrawn;
