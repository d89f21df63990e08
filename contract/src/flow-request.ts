import { polygonOf } from '@wick/core/geometry/arcs';
import type { ForecastRequest, LayoutAction, LayoutLine, ZoneLaminate } from '@wick/core/flow/layout';
import { computeLayers, softLaminateOf, type FlowLayer } from '@wick/core/laminate/layers';
import { computeStack, type Stack, type StackRequest } from '@wick/core/laminate/stack';
import { ModelError } from '@wick/core/model-error';
import { cureLawOf } from '@wick/core/resin/cure-law';
import type { ResinClock } from '@wick/core/resin/resin-clock';
import { clockOf, type RunConditions } from '@wick/core/verdict/verdict';
import { hoseOfLine, hoseOfTee, potLevelOf } from './hoses.ts';
import { materialOf, runConditionsOf, stackRequestOf, ventPressureOf } from './forecast-input.ts';
import type { Job, JobAction, JobLaminate, JobLine } from './job.ts';
import { booksOf } from './ply-book.ts';
import { ambientOf, type Shop } from './shop.ts';

/** Density where no resin is chosen yet: only weight and drawn masses use it. */
const USUAL_DENSITY = 1100;

/** How finely, and in how many steps; layers and softness follow the job unless overruled. */
export interface Resolution {
  readonly nodeCount: number;
  readonly steps?: number;
  readonly layers?: boolean;
  readonly soft?: boolean;
}

/** The resin's temperature or age differs from place to place, so the run must follow the clock. */
export function needsSeconds(job: Job): boolean {
  const { resin, zones } = job;
  return (
    resin.mouldTemperature !== null ||
    resin.batches.length > 0 ||
    zones.some((zone) => zone.temperature !== null)
  );
}

/** Times or delays are set on the clock, or the run is: with another resin or temperature the same layout runs otherwise. */
export function runsOnClock(job: Job): boolean {
  const isTimed = ({ when }: JobAction) => when.kind === 'time' || when.delay > 0;
  return needsSeconds(job) || job.lines.some((line) => line.actions.some(isTimed));
}

/** The forecast reads the resin's clock, if only to know how long a soft laminate has to settle. */
export function isBoundToResin(job: Job): boolean {
  return runsOnClock(job) || job.forecast.soft;
}

/**
 * Stored job -> solver input.
 * @throws ModelError of computeStack; NEEDS_RESIN where the layout runs on a clock and no resin is chosen
 */
export function flowRequestOf(job: Job, shop: Shop, resolution: Resolution): ForecastRequest {
  const layered = resolution.layers ?? job.forecast.layers;
  const soft = resolution.soft ?? job.forecast.soft;
  const zones = zonesOf(job, shop, layered, soft);
  const clockwork = isBoundToResin(job) ? clockworkOf(job, shop) : null;
  const resin = materialOf(job, job.resin.materialId, 'resin');
  const density = resin?.density ?? USUAL_DENSITY;
  const seconds = needsSeconds(job);
  return {
    outline: polygonOf(job.part.outline),
    holes: job.part.holes.map((hole) => polygonOf(hole)),
    rise: job.part.rise,
    lines: job.lines.map((line) => lineOf(line, job, clockwork, density)),
    marks: job.marks,
    meshAreas: job.meshAreas,
    tees: job.tees.map((tee) => ({
      id: tee.id,
      hose: { length: hoseOfTee(job, tee).length, bore: tee.hoseBore },
    })),
    zones,
    feedPressure: ambientOf(shop),
    vacuumPressure: ventPressureOf(job),
    density,
    later: clockwork?.later,
    until: soft ? clockwork?.gel : undefined,
    resin: seconds ? movingResinOf(job, clockwork!, density) : undefined,
    nodeCount: resolution.nodeCount,
    steps: resolution.steps,
  };
}

function zonesOf(job: Job, shop: Shop, layered: boolean, soft: boolean): ZoneLaminate[] {
  const own = (
    name: string,
    laminate: JobLaminate,
    outline: ZoneLaminate['outline'],
    isBrake: boolean,
  ): ZoneLaminate => {
    const request = stackRequestOf(job, laminate, shop);
    const stack = computeStack(request);
    const flowOf = (of: StackRequest, its: Stack) => ({
      layers: layered ? computeLayers(of, its) : [averaged(its)],
      soft: soft ? softLaminateOf(of, its) : null,
    });
    const withoutMesh = { ...request, flowMesh: null };
    return {
      name,
      outline,
      isBrake,
      thickness: stack.laminateThickness,
      ...flowOf(request, stack),
      bare: job.meshAreas.length > 0 ? flowOf(withoutMesh, computeStack(withoutMesh)) : undefined,
    };
  };
  return [
    ...booksOf(job).map(({ name, laminate, isBrake }, n) =>
      own(name, laminate, n === 0 ? null : polygonOf(job.zones[n - 1]!.outline), isBrake),
    ),
  ];
}

function averaged({ transmissibility, storage }: Stack): FlowLayer {
  return { name: 'Averaged', transmissibility, storage, toNext: 0, isSoft: true };
}

interface Clockwork {
  readonly run: RunConditions;
  readonly clock: ResinClock;
  /** Run time at a time since first mix, and so many seconds after a run time; gel as a run time. */
  at(time: number): number;
  later(time: number, seconds: number): number;
  readonly gel: number;
}

function clockworkOf(job: Job, shop: Shop): Clockwork {
  const run = runConditionsOf(job, shop);
  if (!run)
    throw new ModelError(
      'NEEDS_RESIN',
      'Timed openings, a soft laminate and warm zones run on the resin’s clock. Choose a resin first.',
    );
  const clock = clockOf(run);
  const from = run.openTime;
  if (needsSeconds(job))
    return {
      run,
      clock,
      at: (time) => Math.max(0, time - from),
      later: (time, seconds) => time + seconds,
      gel: clock.gelTime - from,
    };
  const all = clock.fluidity({ from, to: clock.gelTime });
  return {
    run,
    clock,
    // What lies past gel never comes.
    at: (time) => (time < clock.gelTime ? clock.fluidity({ from, to: Math.max(from, time) }) : Infinity),
    later: (time, seconds) => {
      const then = clock.timeAtFluidity({ from, fluidity: time }) + seconds;
      return then < clock.gelTime ? clock.fluidity({ from, to: then }) : Infinity;
    },
    gel: all,
  };
}

function lineOf(line: JobLine, job: Job, clockwork: Clockwork | null, density: number): LayoutLine {
  const { id, name, kind, points, bore, inlet, startsOpen } = line;
  const hose = hoseOfLine(job, line);
  return {
    id,
    name,
    kind,
    points,
    bore,
    inlet,
    startsOpen,
    potLevel: potLevelOf(job, line),
    hose: kind === 'feed' ? { length: hose.length, bore: hose.bore, tee: line.tee } : null,
    actions: kind === 'race' ? [] : line.actions.map((action) => actionOf(action, job, clockwork, density)),
  };
}

function actionOf(
  { opening, when }: JobAction,
  job: Job,
  clockwork: Clockwork | null,
  density: number,
): LayoutAction {
  switch (when.kind) {
    case 'time':
      return { opening, when: { kind: 'time', time: clockwork!.at(when.time) } };
    case 'zoneFull':
      return {
        opening,
        when: { ...when, zone: 1 + job.zones.findIndex((zone) => zone.id === when.zone) },
      };
    case 'drawn':
      return { opening, when: { kind: 'drawn', volume: when.mass / density, delay: when.delay } };
    default:
      return { opening, when };
  }
}

/** Resin enters as old as its batch, and takes the mould's temperature at once: laminates are thin. */
function movingResinOf(job: Job, { run, clock }: Clockwork, density: number): ForecastRequest['resin'] {
  const law = cureLawOf(run.resin);
  const drift = run.drift ?? 0;
  const base = job.resin.mouldTemperature ?? run.temperature;
  const temperatures = [base, ...job.zones.map((zone) => zone.temperature ?? base)];
  const batches = job.resin.batches;
  return {
    law,
    temperature: (zone, time) => temperatures[zone]! + drift * (run.openTime + time),
    inletState(time, drawn) {
      const mixedAt = batches.reduce((at, batch) => (drawn * density >= batch.after ? batch.mixedAt : at), 0);
      const age = Math.max(0, run.openTime + time - mixedAt);
      return law.gelState * Math.min(1, clock.ageAt(Math.min(age, clock.gelTime)));
    },
  };
}
