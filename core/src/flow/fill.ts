import { ModelError } from '../model-error.ts';
import { act, keepFrame, startRun, type FillRun } from './fill-run.ts';
import { prepareStep, takeStep, tryStep } from './fill-step.ts';
import type { FillRequest, FillResult } from './fill-types.ts';
import { FULL, isOver, planFirst, planNext, SPECK, spareRoom } from './step-plan.ts';

/**
 * Fills a network from its feeds. Each step solves one obstacle problem for the pressure impulse U (the integral of the
 * pressure above vacuum over the step), which is exact whatever the length of the step while nothing else changes in it;
 * widening pores, weight ahead of full nodes and curing are taken from the step's start.
 * @throws ModelError those of requireGates and createSequence; PRESSURE_ORDER; BAD_START; TOO_MANY_STEPS; CANCELLED when
 *         onProgress returns false
 * Valid: Darcy flow, incompressible resin, saturated front. A run that starts half-way takes air that is shut in by then as
 *        at the vacuum's own pressure.
 * Source: Baiocchi 1972; Elliott & Janovsky 1981 (impulse form). Checked by fill.test.ts and fill-start.test.ts.
 */
export function fill(request: FillRequest): FillResult {
  const run = startRun(request);
  prepareStep(run, 0);
  planFirst(run);
  while (!isOver(run)) {
    const trial = tryStep(run);
    const taken = takeStep(run, trial);
    const hasTurned = act(run);
    const hasActed = hasTurned || trial.reached.length > 0;
    if (request.onProgress?.(run.stored / run.total) === false)
      throw new ModelError('CANCELLED', 'The forecast was stopped.');
    planNext(run, { ...taken, hasActed, hasTurned });
  }
  return resultOf(run);
}

/** Gas that keeps this share of its room has not been pressed: no resin ever came to where it is. */
const UNTOUCHED = 0.999;

function resultOf(run: FillRun): FillResult {
  const { air, tracker, total, time, level, request, bed, board, cure } = run;
  const rest = (total - run.stored - air.volume(level) - spareRoom(run)) / total;
  if (request.frames) keepFrame(run);
  const trapped = air.finish(level);
  const isFed = trapped.every(({ volume, finalVolume }) => finalVolume < UNTOUCHED * volume);
  if (rest <= FULL && trapped.every((region) => region.finalVolume === 0))
    tracker.markReached(
      Array.from(level, (_, i) => i),
      time,
    );
  const arrival = tracker.finish();
  for (const region of trapped) for (const i of region.voidNodes) arrival[i] = NaN;
  return {
    arrival,
    isFilled: rest <= SPECK && isFed,
    fillTime: arrival.reduce((last, t) => (t > last ? t : last), 0),
    samples: run.samples,
    events: run.events,
    trapped,
    frames: run.frames,
    final: {
      time,
      pressure: run.rate,
      level,
      pores: bed.pores,
      opening: board.opening,
      cure: cure && cure.state,
    },
    cureAtArrival: run.cureAtArrival,
    waiting: run.sequence.waiting(),
    massError: run.massError,
    solves: run.solves,
    iterations: run.iterations,
  };
}
