import type { Mesh } from '../geometry/mesh.ts';
import { operate, startRun } from './fill-run.ts';
import { takeStep, tryStep } from './fill-step.ts';
import type { FillStart } from './fill-types.ts';
import { latestNode } from './counted-nodes.ts';
import { arrivalIn, fillRequestOf, prepare } from './prepared.ts';
import type { ForecastRequest } from './layout.ts';
import { createSequence } from './sequence.ts';
import { firstStep, isFull, roomOf, SPECK } from './step-plan.ts';
import { wettest } from './through-layers.ts';

/** A fill that goes on as somebody outside says: lines are turned by hand, and time passes in pieces. */
export interface LiveFill {
  readonly mesh: Mesh;
  /** Run time, as FillResult has it. */
  readonly time: () => number;
  /** Goes on to a run time; what was turned before counts from where the run stood then. */
  readonly pass: (to: number) => void;
  /** @param opening 0 shut to 1 open; of a race nothing happens */
  readonly turn: (lineId: string, opening: number) => void;
  readonly openingOf: (lineId: string) => number;
  /** Feeds drive with this share of their pressure above vacuum from now on, > 0. */
  readonly drive: (share: number) => void;
  /** Fill fraction of each mesh node, bag side and mould side. */
  readonly bagSide: () => Float64Array;
  readonly mouldSide: () => Float64Array;
  /** When the front came on the bag side, and when the whole thickness was wet, a mesh node; NaN where not. */
  readonly arrival: () => { readonly bagSide: Float64Array; readonly whole: Float64Array };
  /** Everything that has to fill has; and when the last of it did, NaN before that. */
  readonly isFull: () => boolean;
  readonly filledAt: () => number;
  /** Volumes since the start, m3: out of the pots, into vents. */
  readonly drawn: () => number;
  readonly vented: () => number;
  /** Volume of all pores that is filled, 0-1. */
  readonly filled: () => number;
  readonly state: () => FillStart;
  /** Ids of actions of the lines whose triggers hold now; those by the clock never do, and delays are not waited for. */
  readonly due: () => string[];
}

/** A piece of time is taken in at least so many steps while the front is on its way. */
const GROWTH = 3;

/**
 * The actions of the lines are not done by themselves: this is the part on the mould, not the plan of it.
 * @throws ModelError as forecastFlow
 * Checked by live-fill.test.ts.
 */
export function createLiveFill(request: ForecastRequest): LiveFill {
  const prepared = prepare(request);
  const { mesh, plan, inPart, layerCount } = prepared;
  const { lines } = prepared.request;
  const fillRequest = fillRequestOf(prepared);
  const run = startRun({ ...fillRequest, actions: [], frames: 0 });
  const soft = fillRequest.softness !== undefined;
  const n = mesh.nodeCount;
  const cues = createSequence(
    fillRequest.actions!.filter(({ when }) => when.kind !== 'time'),
    plan.gates.length,
    undefined,
  );
  let step = firstStep(run.network, run.board);
  let filledAt = NaN;

  const gateOf = (lineId: string) => plan.gateOf[lines.findIndex(({ id }) => id === lineId)] ?? -1;
  const side = (layer: number) => run.level.slice(layer * n, (layer + 1) * n);
  const isFed = () => run.board.isFeed.some((flag, i) => flag === 1 && run.board.pressure[i] > 0);

  function arrival() {
    const all = run.tracker.finish();
    const layers = Array.from({ length: layerCount }, (_, l) => arrivalIn(prepared, all, l));
    return { bagSide: layers[0], whole: wettest(layers) };
  }

  function noteFilled(): void {
    if (!Number.isNaN(filledAt)) return;
    const { whole } = arrival();
    const last = whole[latestNode(whole, inPart)];
    const isWet = roomOf(run) <= SPECK * run.total;
    if (isWet || !Number.isNaN(last))
      filledAt = whole.reduce((most, t, i) => (inPart[i] && t > most ? t : most), 0);
  }

  /** While no feed drives and the laminate is stiff nothing moves, nor once it is full. */
  const stands = () => (!soft && isFull(run)) || (!isFed() && !(soft && run.stored > 0));

  function pass(to: number): void {
    while (run.time < to * (1 - 1e-12) && !stands()) {
      const left = to - run.time;
      run.planned = run.step = step > 0 ? Math.min(step, left) : left;
      run.expected = Math.max(1e-5 * run.total, 1e-3 * run.stored);
      takeStep(run, tryStep(run));
      step = Math.max(GROWTH * run.step, run.planned);
    }
    run.time = Math.max(run.time, to);
    run.samples.length = 0;
    noteFilled();
  }

  return {
    mesh,
    time: () => run.time,
    pass,
    turn(lineId, opening) {
      const gate = gateOf(lineId);
      if (gate < 0 || run.board.opening[gate] === opening) return;
      operate(run, gate, opening);
      step = firstStep(run.network, run.board);
    },
    openingOf: (lineId) => run.board.opening[gateOf(lineId)] ?? 0,
    drive: (share) => run.board.drive(share),
    bagSide: () => side(0),
    mouldSide: () => side(layerCount - 1),
    arrival,
    isFull: () => !Number.isNaN(filledAt),
    filledAt: () => filledAt,
    drawn: () => run.entered,
    vented: () => run.vented,
    filled: () => Math.min(1, run.stored / run.total),
    state: () => ({
      ...{ time: run.time, level: run.level.slice(), opening: run.board.opening.slice() },
      ...{ drawn: run.entered, drawnBy: run.enteredBy.slice(), vented: run.vented },
      ...{ pores: run.bed.pores.slice(), cure: run.cure?.state.slice() },
    }),
    due() {
      const { time, level, board, entered } = run;
      const waiting = cues.waiting();
      return cues
        .due({ time, level, drawn: entered, opening: board.opening })
        .flatMap((n) => waiting[n].id ?? []);
    },
  };
}
