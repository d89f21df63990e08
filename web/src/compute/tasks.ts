import type { Material } from '@wick/contract/materials';
import type { EntryBody } from '@wick/contract/run/run';
import type { Shop } from '@wick/contract/shop';
import type { LayoutScore } from '@wick/core/advice/score';
import type { FlowForecast } from '@wick/core/flow/forecast';
import { solveFlow, type FlowProblem, type Fineness } from '@wick/core/flow/problem';
import { ModelError } from '@wick/core/model-error';
import type { EnsembleSample } from '@wick/core/verdict/ensemble';
import { sampleJob } from '@wick/plan/forecast/sample';
import type { LaidJob } from '@wick/plan/job/laid';
import type { CutSheet } from '@wick/plan/laminate/cut-sheet';
import type { DrawnFlow } from '@wick/plan/resin/draw';
import type { Suggestion } from '@wick/plan/resin/suggest';
import type { Asked, ShapeAsked } from '@wick/plan/infusion/asked';
import type { Debrief, DebriefRequest } from '@wick/plan/infusion/debrief';
import type { HeatForecast, HeatRequest } from '@wick/plan/infusion/heat';
import type { TriedOption } from '@wick/plan/infusion/options';
import type { SolvedShape } from '@wick/plan/infusion/problem-shapes';
import type { Ending } from '@wick/plan/infusion/stop';
import type { CameOffRequest } from '@wick/plan/review/came-off';
import type { Share, SharesRequest } from '@wick/plan/review/shares';
import type { DropReading, DropRequest } from '@wick/plan/vacuum/drop-test';

/** Everything that is computed off the screen's own thread, as data. */
export type Task =
  | { readonly kind: 'flow'; readonly problem: FlowProblem; readonly fineness: Fineness }
  | {
      readonly kind: 'score';
      readonly job: LaidJob;
      readonly shop: Shop;
      readonly how: 'quick' | 'thorough';
    }
  | { readonly kind: 'sample'; readonly job: LaidJob; readonly shop: Shop; readonly index: number }
  | { readonly kind: 'drop'; readonly request: DropRequest }
  | {
      readonly kind: 'batches';
      readonly job: LaidJob;
      readonly shop: Shop;
      readonly flow: DrawnFlow;
      /** Resins that could be taken instead. */
      readonly library: readonly Material[];
    }
  /** One way in which a part may be, on the clock of the plan. */
  | { readonly kind: 'shape'; readonly asked: ShapeAsked }
  /** The likeliest of them again, with what was turned. */
  | { readonly kind: 'again'; readonly asked: Asked }
  | { readonly kind: 'options'; readonly asked: Asked }
  | { readonly kind: 'endings'; readonly asked: Asked }
  | { readonly kind: 'heat'; readonly request: HeatRequest }
  /** How much the front's pace hangs on each entry. */
  | { readonly kind: 'shares'; readonly request: SharesRequest }
  /** What is found on the part of a rehearsal. */
  | { readonly kind: 'cameOff'; readonly request: CameOffRequest }
  | { readonly kind: 'debrief'; readonly request: DebriefRequest }
  | { readonly kind: 'cut'; readonly job: LaidJob; readonly overlap: number };

/** What each kind of task comes to; a score is null where the layout cannot run. */
export interface Results {
  readonly flow: FlowForecast;
  readonly score: LayoutScore | null;
  readonly sample: EnsembleSample;
  readonly cut: CutSheet;
  readonly shape: SolvedShape;
  readonly again: SolvedShape;
  readonly options: readonly TriedOption[];
  readonly endings: readonly Ending[];
  /** null where nothing cures. */
  readonly heat: HeatForecast | null;
  readonly shares: readonly Share[];
  readonly debrief: Debrief;
  /** null where no feed was opened. */
  readonly cameOff: readonly EntryBody[] | null;
  /** null while it is not known what is drawn. */
  readonly batches: Suggestion | null;
  /** null while there is too little to read. */
  readonly drop: DropReading | null;
}
export type ResultOf<T extends Task> = Results[T['kind']];

/** Called with the share done; false stops the run. */
type Watch = (share: number) => boolean;

/** These draw in the booleans of the ply book, which the first forecast does without. */
const ranking = () => import('@wick/plan/advice/score');
const dropTests = () => import('@wick/plan/vacuum/drop-test');
const mixing = () => import('@wick/plan/resin/suggest');
const infusing = () => import('@wick/plan/infusion/asked');
const curing = () => import('@wick/plan/infusion/heat');
const debriefing = () => import('@wick/plan/infusion/debrief');
const comingOff = () => import('@wick/plan/review/came-off');
const sharing = () => import('@wick/plan/review/shares');
const cutting = () => import('@wick/plan/laminate/cut-sheet');

const run: {
  [K in Task['kind']]: (task: Extract<Task, { kind: K }>, watch: Watch) => Results[K] | Promise<Results[K]>;
} = {
  flow: ({ problem, fineness }, onProgress) => solveFlow(problem, { ...fineness, onProgress }),
  score: async ({ job, shop, how }) => (await ranking()).scoreJob(job, shop, how),
  sample: ({ job, shop, index }) => sampleJob(job, shop, index),
  drop: async ({ request }) => (await dropTests()).readDrop(request),
  batches: async ({ job, shop, flow, library }) => (await mixing()).suggestFor(job, shop, flow, library),
  shape: async ({ asked }) => (await infusing()).shapeAsked(asked),
  again: async ({ asked }) => (await infusing()).againAsked(asked),
  options: async ({ asked }) => (await infusing()).optionsAsked(asked),
  endings: async ({ asked }) => (await infusing()).endingsAsked(asked),
  heat: async ({ request }) => (await curing()).heatForecast(request),
  debrief: async ({ request }) => (await debriefing()).debriefOf(request),
  cameOff: async ({ request }) => (await comingOff()).cameOff(request),
  shares: async ({ request }) => (await sharing()).sharesOf(request),
  cut: async ({ job, overlap }) => (await cutting()).cutSheetOf(job, overlap),
};

/** @throws ModelError whose message is for the user; anything else is a fault of ours */
export const runTask = async <T extends Task>(task: T, watch: Watch): Promise<ResultOf<T>> =>
  (run[task.kind] as unknown as (task: T, watch: Watch) => ResultOf<T> | Promise<ResultOf<T>>)(task, watch);

/** Buffers that need not be copied on their way back. */
export const buffersOf = (task: Task, result: unknown): ArrayBuffer[] =>
  task.kind === 'flow'
    ? (result as FlowForecast).frames.map(({ pressure }) => pressure.buffer as ArrayBuffer)
    : [];

export type Failure = { readonly isOurs: boolean; readonly message: string };

/** A failure in words: what the models say as they say it; a fault of the program as that. */
export const failureOf = (error: unknown): Failure =>
  error instanceof ModelError
    ? { isOurs: false, message: error.message }
    : {
        isOurs: true,
        message: `The program made a mistake in this forecast (${error instanceof Error ? error.message : String(error)}). Nothing of the job is lost; change something or reload, and keep the job file if it happens again.`,
      };
