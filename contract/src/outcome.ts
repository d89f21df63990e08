import type { FlowForecast } from '@wick/core/flow/forecast';
import { lineLength } from '@wick/core/geometry/polygon';
import type { Verdict } from '@wick/core/verdict/verdict';
import { isBoundToResin } from './flow-request.ts';
import { materialOf } from './forecast-input.ts';
import { hoseRunsOf } from './hoses.ts';
import { MOST_VARIANTS, type Job, type JobVariant, type Outcome } from './job.ts';
import { partSums } from './ply-book.ts';
import type { Shop } from './shop.ts';

/**
 * What a forecast comes to, for comparing layouts. Masses need a resin, and so does the verdict.
 * @param flow with its verdict, from the same job and shop
 */
export function outcomeOf(job: Job, shop: Shop, flow: FlowForecast, verdict: Verdict): Outcome {
  const hoses = hoseRunsOf(job);
  const drawnLines = job.lines.filter(({ kind }) => kind !== 'race');
  const finite = (time: number) => (Number.isFinite(time) ? time : null);
  return {
    fingerprint: fingerprintOf(job, shop),
    band: verdict.band,
    fillTime: finite(verdict.fillTime),
    gelTime: verdict.gelTime,
    earliest: finite(verdict.likely.from),
    latest: finite(verdict.likely.to),
    chance: verdict.chance,
    dryArea: flow.dryRegions.reduce((sum, region) => sum + region.area, 0),
    wetShare: Math.min(1, Math.max(0, verdict.reachedFraction)),
    wastedResin: wastedResin(job, shop, flow.vented),
    lineLength: drawnLines.reduce((sum, { points }) => sum + lineLength(points), 0),
    hoseLength: hoses.reduce((sum, { length }) => sum + length, 0),
    operatorActions: operatorActionsOf(job),
  };
}

/** Resin that is not in the part, kg: in mesh and peel ply, lines, hoses and vents. */
function wastedResin(job: Job, shop: Shop, vented: number): number {
  const density = materialOf(job, job.resin.materialId, 'resin')?.density ?? 0;
  const bore = ({ length, bore: d }: { length: number; bore: number }) => (Math.PI / 4) * d * d * length;
  const lines = job.lines
    .filter(({ kind }) => kind === 'feed')
    .reduce((sum, line) => sum + bore({ length: lineLength(line.points), bore: line.bore }), 0);
  const hoses = hoseRunsOf(job)
    .filter(({ kind }) => kind === 'feed')
    .reduce((sum, hose) => sum + bore(hose), 0);
  return density * (vented + lines + hoses + partSums(job, shop).resinInConsumables);
}

/** Valves turned during the fill, the first opening among them: lines that share a tee are opened by one. */
export function operatorActionsOf(job: Job): number {
  const valves = job.lines.filter(({ kind }) => kind === 'feed');
  const starting = new Set(valves.filter((line) => line.startsOpen).map((line) => line.tee ?? line.id));
  return starting.size + job.lines.reduce((sum, { actions }) => sum + actions.length, 0);
}

/** Short mark of everything a forecast and its verdict depend on: equal for equal input (FNV-1a, Fowler, Noll & Vo). */
export function fingerprintOf(job: Job, shop: Shop): string {
  const { part, laminate, zones, lines, tees, stations, meshAreas, resin, vacuum, forecast, doubt } = job;
  const { altitude, ambientPressure, temperature } = shop;
  const text = JSON.stringify([
    part,
    laminate,
    zones,
    [lines.map((line) => ({ ...line, pinned: false })), tees, stations, meshAreas],
    [resin, vacuum, { ...forecast, nodeCount: null }, doubt],
    job.materials,
    [altitude, ambientPressure, temperature, isBoundToResin(job)],
  ]);
  let [low, high] = [0x811c9dc5, 0x1b873593];
  for (let i = 0; i < text.length; i++) {
    low = Math.imul(low ^ text.charCodeAt(i), 0x01000193);
    high = Math.imul(high ^ text.charCodeAt(text.length - 1 - i), 0x01000193);
  }
  return (low >>> 0).toString(16).padStart(8, '0') + (high >>> 0).toString(16).padStart(8, '0');
}

/** The layout that is worked on, as a variant. */
export function currentVariant(job: Job, outcome: Outcome | null): JobVariant {
  const { lines, tees, stations, meshAreas, layout, zones } = job;
  const brakes = zones.filter(({ purpose }) => purpose === 'brake');
  return { ...layout, lines, tees, stations, meshAreas, brakes, outcome };
}

/** The job with another of its layouts laid on; what waits for something that only the old one had goes. */
export function withLayout(job: Job, variant: Omit<JobVariant, 'outcome'>): Job {
  const { letter, name, lines, tees, stations, meshAreas, brakes } = variant;
  const base = new Set(job.laminate.plies.map(({ id }) => id));
  const kept = brakes.map((zone) => ({
    ...zone,
    laminate: {
      ...zone.laminate,
      plies: zone.laminate.plies.filter((ply) => !('through' in ply) || base.has(ply.through)),
    },
  }));
  const zones = [...job.zones.filter(({ purpose }) => purpose !== 'brake'), ...kept];
  const known = new Set([...lines, ...job.marks, ...zones].map(({ id }) => id));
  return {
    ...job,
    layout: { letter, name },
    zones,
    tees,
    stations,
    meshAreas,
    lines: lines.map((line) => ({
      ...line,
      actions: line.actions.filter(
        ({ when }) =>
          (!('what' in when) || known.has(when.what)) && (when.kind !== 'zoneFull' || known.has(when.zone)),
      ),
    })),
  };
}

const LETTERS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ';

/** Keeps the layout as it stands and goes on with a copy under the next letter; the job as it is when there is no room for more. */
export function copyLayout(job: Job, outcome: Outcome | null, name = ''): Job {
  const taken = new Set([job.layout.letter, ...job.variants.map(({ letter }) => letter)]);
  const letter = [...LETTERS].find((candidate) => !taken.has(candidate));
  if (!letter || job.variants.length >= MOST_VARIANTS) return job;
  return {
    ...job,
    layout: { letter, name },
    variants: sorted([...job.variants, currentVariant(job, outcome)]),
  };
}

/** Takes up another layout; the one worked on so far waits in its place. */
export function adoptLayout(job: Job, letter: string, outcome: Outcome | null): Job {
  const wanted = job.variants.find((variant) => variant.letter === letter);
  if (!wanted) return job;
  const others = job.variants.filter((variant) => variant !== wanted);
  return { ...withLayout(job, wanted), variants: sorted([...others, currentVariant(job, outcome)]) };
}

const sorted = (variants: JobVariant[]) => variants.sort((a, b) => (a.letter < b.letter ? -1 : 1));
