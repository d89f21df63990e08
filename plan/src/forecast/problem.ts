import { booksOf } from '../laminate/books.ts';
import type { JobAction, JobLine } from '@wick/contract/job/job';
import type { JobLayer } from '@wick/contract/job/stack';
import type { Shop } from '@wick/contract/shop';
import { polygonOf } from '@wick/core/geometry/arcs';
import type { LayoutAction, LayoutLine, ZoneLaminate } from '@wick/core/flow/layout';
import type { FlowProblem, MovingConditions } from '@wick/core/flow/problem';
import { computeLayers, softLaminateOf, type FlowLayer } from '@wick/core/laminate/layers';
import { computeStack, type Stack, type StackRequest } from '@wick/core/laminate/stack';
import type { PartShape } from '@wick/core/layouts/frame';
import { ModelError } from '@wick/core/model-error';
import { clockResin } from '@wick/core/resin/resin-system';
import type { LaidJob, LaidZone } from '../job/laid.ts';
import { stackRequestOf } from '../laminate/stack.ts';
import { hoseOfLine, hoseOfTee, potLevelOf } from '../layout/hoses.ts';
import { batchesOf } from '../resin/batches.ts';
import { potIndexOf, potsOf, type FeedPot } from '../resin/pots.ts';
import { runConditionsOf } from '../resin/run.ts';
import { settle } from '../settle.ts';
import { conducts, laidOn } from '../stack/laid-on.ts';
import { patchesOn } from '../stack/regions.ts';

/** How the laminate is taken; as the job asks unless overruled. */
export interface Simplification {
  readonly layers?: boolean;
  readonly soft?: boolean;
}

/** The resin's temperature or age differs from place to place, so the run must follow the clock. */
function needsSeconds({ resin, zones }: LaidJob): boolean {
  return (
    resin.mouldTemperature !== null ||
    resin.batches.length > 1 ||
    zones.some((zone) => zone.temperature !== null)
  );
}

/** Times or delays are set on the clock, or the run is: with another resin or temperature the same layout runs otherwise. */
export function runsOnClock(job: LaidJob): boolean {
  const isTimed = ({ when }: JobAction) => when.kind === 'time' || when.delay > 0;
  return needsSeconds(job) || job.lines.some((line) => line.kind !== 'race' && line.actions.some(isTimed));
}

/** Layers are told apart where the job says so, or where nobody has said and something runs ahead or stands between: a mesh, a film or a core. */
export const runsInLayers = ({ forecast, laminate, zones, layers }: LaidJob): boolean =>
  forecast.layers ??
  ([laminate, ...zones.map((zone) => zone.laminate)].some(({ coreId }) => coreId !== null) ||
    layers.some((layer) => conducts(layer) && layer.kind !== 'peelPly'));

/** The resin's weight matters: on a slope, or with a pot above or below. */
const weighs = (job: LaidJob) =>
  job.part.rise !== null || job.lines.some((line) => line.kind === 'feed' && potLevelOf(job, line) !== 0);

/** Where weight plays no part the problem is the same for any resin. */
const WEIGHTLESS = 1;

/**
 * The flow problem of a job: everything that changes where its front is, and nothing else.
 * @throws ModelError of computeStack; NEEDS_RESIN where the layout runs on a clock and no resin is chosen
 */
export function problemOf(job: LaidJob, shop: Shop, simply: Simplification = {}): FlowProblem {
  const settled = settle(job, shop);
  const layered = simply.layers ?? runsInLayers(job);
  const soft = simply.soft ?? job.forecast.soft;
  const seconds = needsSeconds(job);
  const pots = potsOf(job);
  const run = runsOnClock(job) || soft ? boundRun(job, shop) : null;
  const density = settled['resin.density'].value;
  return {
    outline: polygonOf(job.part.outline),
    holes: job.part.holes.map((hole) => polygonOf(hole.outline)),
    rise: job.part.rise,
    lines: job.lines.map((line) => lineOf(line, job, density, pots)),
    marks: job.marks,
    coverings: coveringsOf(job).map(({ patches }) => patches),
    tees: job.tees.map((tee) => ({
      id: tee.id,
      hose: { length: hoseOfTee(job, tee).length, bore: tee.hoseBore },
    })),
    zones: zonesOf(job, shop, layered, soft),
    feedPressure: settled['shop.ambientPressure'].value,
    vacuumPressure: settled['vacuum.ventPressure'].value,
    density: weighs(job) ? density : WEIGHTLESS,
    run,
    moving: seconds
      ? {
          temperatures: temperaturesOf(job, settled['resin.temperature'].value),
          batches: job.resin.batches.length > 1 ? flowBatchesOf(job, shop, density) : [],
        }
      : null,
    settles: soft,
  };
}

function boundRun(job: LaidJob, shop: Shop) {
  const run = runConditionsOf(job, shop);
  if (run) return { ...run, resin: clockResin(run.resin, run.pot !== null) };
  throw new ModelError(
    'NEEDS_RESIN',
    'Timed openings, a soft laminate and warm zones run on the resin’s clock. Choose a resin first.',
  );
}

const flowBatchesOf = (job: LaidJob, shop: Shop, density: number): MovingConditions['batches'] =>
  batchesOf(job, shop)
    .filter(({ mass }) => mass > 0)
    .map(({ pot, mixedAt, pouredAt, mass }) => ({ pot, mixedAt, pouredAt, mass, volume: mass / density }));

function temperaturesOf({ resin, zones }: LaidJob, temperature: number): number[] {
  const base = resin.mouldTemperature ?? temperature;
  return [base, ...zones.map((zone) => zone.temperature ?? base)];
}

function zonesOf(job: LaidJob, shop: Shop, layered: boolean, soft: boolean): ZoneLaminate[] {
  const coverings = coveringsOf(job);
  return booksOf(job).map(({ name, laminate, isBrake, zoneId }, n) => {
    const flowWith = (lies?: (layer: JobLayer) => boolean) =>
      laminateFlow(stackRequestOf(job, laminate, shop, laidOn(job, zoneId, lies)), layered, soft);
    const missing = Array.from({ length: 2 ** coverings.length - 1 }, (_, m) =>
      coverings.filter((_, bit) => ((m + 1) >> bit) & 1).map(({ layer }) => layer.id),
    );
    return {
      id: zoneId ?? undefined,
      name,
      outline: zoneId === null ? null : polygonOf(zoneAt(job, n).outline),
      isBrake,
      ...flowWith(),
      uncovered: missing.map((ids) => flowWith(({ id }) => !ids.includes(id))),
    };
  });
}

/** Layers that end on the part, with where they lie on it. */
const coveringsOf = (job: LaidJob) =>
  job.layers
    .filter(conducts)
    .map((layer) => ({ layer, patches: patchesOn(job, layer) }))
    .filter((covering): covering is { layer: JobLayer; patches: PartShape[] } => covering.patches !== null);

/** Books start with the base. */
const zoneAt = (job: LaidJob, book: number): LaidZone => job.zones[book - 1]!;

function laminateFlow(request: StackRequest, layered: boolean, soft: boolean) {
  const stack = computeStack(request);
  return {
    layers: layered ? computeLayers(request, stack) : [averaged(stack)],
    soft: soft ? softLaminateOf(request, stack) : null,
    thickness: stack.thickness,
  };
}

function averaged({ transmissibility, storage }: Stack): FlowLayer {
  return { name: 'Averaged', transmissibility, storage, toNext: 0, isSoft: true };
}

/** Only what the line's kind makes use of. */
function lineOf(line: JobLine, job: LaidJob, density: number, pots: readonly FeedPot[]): LayoutLine {
  const { id, name, kind, points, bore, inlet, startsOpen } = line;
  const own = { id, name, kind, points, bore };
  if (kind === 'race') return { ...own, startsOpen: true, actions: [] };
  const actions = line.actions.map((action) => actionOf(action, job, density));
  if (kind === 'vent') return { ...own, startsOpen, actions };
  const hose = hoseOfLine(job, line);
  return {
    ...own,
    startsOpen,
    actions,
    inlet,
    potLevel: potLevelOf(job, line),
    hose: { length: hose.length, bore: hose.bore, tee: line.tee },
    ...(pots.length > 1 ? { pot: potIndexOf(pots, line) } : {}),
  };
}

function actionOf({ id, opening, when }: JobAction, job: LaidJob, density: number): LayoutAction {
  switch (when.kind) {
    case 'zoneFull':
      return {
        id,
        opening,
        when: { ...when, zone: 1 + job.zones.findIndex((zone) => zone.id === when.zone) },
      };
    case 'drawn':
      return { id, opening, when: { kind: 'drawn', volume: when.mass / density, delay: when.delay } };
    default:
      return { id, opening, when };
  }
}
