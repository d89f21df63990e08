import type { Entry } from '@wick/contract/run/run';
import type { Shop } from '@wick/contract/shop';
import { ModelError } from '@wick/core/model-error';
import { ROUGH, ROUGH_LAYERS } from '../forecast/assess.ts';
import { runsInLayers } from '../forecast/problem.ts';
import type { LaidJob } from '../job/laid.ts';
import { clockOf } from '@wick/core/verdict/verdict';
import { runConditionsOf } from '../resin/run.ts';
import { runStateOf } from '../run/state.ts';
import { infusionOf } from './infusion.ts';
import { liveClockOf, type BagReading } from './live-clock.ts';
import { whatNow, type TriedOption } from './options.ts';
import { wholeAsItGoes } from './as-it-went.ts';
import {
  problemOfShape,
  scaledShape,
  shapeOf,
  shapeTaskOf,
  solveShape,
  type SolvedShape,
} from './problem-shapes.ts';
import type { Reforecast } from './reforecast.ts';
import { resinLeftOf } from './resin-left.ts';
import { endingsOf, type Ending } from './stop.ts';

/** A question about a fill that goes on, as data: it is answered off the screen's own thread. */
export interface Asked {
  readonly job: LaidJob;
  readonly shop: Shop;
  readonly entries: readonly Entry[];
  readonly readings: readonly BagReading[];
  readonly answer: Pick<Reforecast, 'likeliest' | 'now'>;
}

/** Soft layers take several times as long: the end of a fill is looked at averaged. */
const SOFT = { nodeCount: 300, steps: 30 };

function readAsked({ job, shop, entries, readings }: Asked) {
  const state = runStateOf(entries);
  const infusion = infusionOf(state, job);
  const clock = liveClockOf(job, shop, infusion, state, readings);
  if (clock && infusion.openedAt !== null) return { infusion, clock };
  throw new ModelError('NOT_BEGUN', 'Nothing runs yet: say when it was mixed, and open a feed.');
}

/** One of the ways in which the part may be, on the clock of its plan; which there are: shapeIdsOf. @throws ModelError as solveShape */
export function shapeAsked({ job, shop, id }: ShapeAsked): SolvedShape {
  const run = runConditionsOf(job, shop);
  const task = run && shapeTaskOf(job, shop, id);
  if (run && task) return solveShape(task, clockOf(run), run.openTime);
  throw new ModelError('NEEDS_RESIN', 'A re-forecast runs on the resin’s clock. Choose a resin first.');
}

export interface ShapeAsked {
  readonly job: LaidJob;
  readonly shop: Shop;
  readonly id: string;
}

/**
 * The likeliest way in which the part may be, solved again with the lines turned as they were: its times without the factor, as those of
 * the other ways are. @throws ModelError NOT_BEGUN, and as wholeAsItGoes
 */
export function againAsked(asked: Asked): SolvedShape {
  const { job, shop, answer } = asked;
  const { infusion, clock } = readAsked(asked);
  const { factor, shape } = answer.likeliest;
  const problem = problemOfShape(job, shop, shape.id);
  const { nodeCount, steps } = runsInLayers(job) ? ROUGH_LAYERS : ROUGH;
  const flow = wholeAsItGoes(problem, factor, {
    infusion,
    clock,
    now: answer.now,
    fineness: { nodeCount, steps },
  });
  const { id, event, prior } = shape;
  return scaledShape(
    shapeOf({ id, event, prior, lines: problem.lines }, flow, clock.clock, clock.run.openTime),
    factor,
  );
}

/** Every way on from here, simulated. @throws ModelError NOT_BEGUN, and as whatNow */
export function optionsAsked(asked: Asked): TriedOption[] {
  const { job, shop, answer } = asked;
  const { infusion, clock } = readAsked(asked);
  const { nodeCount, steps } = runsInLayers(job) ? ROUGH_LAYERS : ROUGH;
  return whatNow({
    ...{ job, answer, infusion, clock },
    problem: problemOfShape(job, shop, answer.likeliest.shape.id),
    resin: resinLeftOf(job, shop, infusion, clock, answer),
    fineness: { nodeCount, steps },
  });
}

/** How it ends by either school. @throws ModelError NOT_BEGUN, and as endingsOf */
export function endingsAsked(asked: Asked): Ending[] {
  const { job, shop, answer } = asked;
  const { infusion, clock } = readAsked(asked);
  const averaged = { ...job, forecast: { ...job.forecast, layers: false } };
  return endingsOf({
    ...{ job, infusion, clock, now: answer.now, fineness: SOFT },
    problem: problemOfShape(averaged, shop, answer.likeliest.shape.id, true),
    factor: answer.likeliest.factor,
  });
}
