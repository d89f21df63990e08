import { settledIn } from '../settle.ts';
import type { LayerCovers } from '@wick/contract/job/stack';
import type { Outcome } from '@wick/contract/job/result';
import type { LayoutScore } from '@wick/core/advice/score';
import { framesOf } from '@wick/core/layouts/frame';
import type { LineDraft, TemplateRequest } from '@wick/core/layouts/templates';
import { regionArea } from '@wick/core/geometry/overlay';
import { sidesOf } from '@wick/core/geometry/sides';
import { orNull } from '@wick/core/model-error';
import { forecastJob, verdictOf, type Resolution } from '../forecast/assess.ts';
import { applyDrafts, partShapeOf } from '../layout/fit.ts';
import type { LaidJob } from '../job/laid.ts';
import { isMesh, MESH_GAP } from '../layout/mesh-areas.ts';
import { outcomeOf } from '../forecast/outcome.ts';
import { partSums } from '../laminate/ply-book.ts';
import { partPatch } from '../part/patch.ts';
import { raceAlong } from '../forecast/draw.ts';
import type { Shop } from '@wick/contract/shop';

/** Fineness of the runs that sort layouts, and of those that decide. */
const QUICK: Resolution = { nodeCount: 240, steps: 20, layers: false, soft: false };
const THOROUGH: Resolution = { nodeCount: 800, steps: 40, layers: false, soft: false };
/** Longest sides along which a race is tried. */
const RACED_SIDES = 2;

/** Why no layouts can be proposed for a job, in a sentence; null where they can. */
export function whyNoAdvice(job: LaidJob): string | null {
  if (job.laminate.plies.length === 0) return 'Lay the plies first: how resin runs depends on them.';
  return job.resin.materialId === null ? 'Choose a resin first: a layout is judged against its gel.' : null;
}

/**
 * The job with proposed lines laid on. Pinned lines stay, and a pinned vent takes the place of all proposed ones. With new vents
 * the mesh is laid anew, short of them, and brakes of the old ones go.
 */
export function layDrafts(job: LaidJob, drafts: readonly LineDraft[]): LaidJob {
  const hasPinnedVent = job.lines.some((line) => line.kind === 'vent' && line.pinned);
  const laid = applyDrafts(
    hasPinnedVent ? job : { ...job, zones: job.zones.filter(({ purpose }) => purpose !== 'brake') },
    hasPinnedVent ? drafts.filter(({ kind }) => kind === 'feed') : drafts,
  );
  if (hasPinnedVent) return laid;
  const gap = Math.min(MESH_GAP, 0.12 * framesOf(partShapeOf(job)).long.width);
  const anew = { kind: 'part', edge: 0, feed: null, vent: gap } as const;
  return {
    ...laid,
    layers: laid.layers.map((layer) =>
      isMesh(layer) ? { ...layer, covers: meshAnew(layer.covers, anew) } : layer,
    ),
  };
}

/** Where it ends at the edge stays as it was chosen. */
const meshAnew = (covers: LayerCovers, anew: LayerCovers & { kind: 'part' }): LayerCovers =>
  covers.kind === 'part' ? { ...covers, vent: anew.vent } : anew;

/** A job's forecast as a score; null where the layout cannot run at all. */
export const scoreJob = (job: LaidJob, shop: Shop, how: 'quick' | 'thorough'): LayoutScore | null =>
  orNull(() => {
    const flow = forecastJob(job, shop, how === 'quick' ? QUICK : THOROUGH);
    const verdict = verdictOf(job, shop, flow);
    if (!verdict) return null;
    const outcome = outcomeOf(job, shop, flow, verdict);
    return scoreOf(job, shop, outcome, how === 'thorough' ? racingDryShare(job, shop) : 0);
  });

/** An outcome as layouts are ranked by it. */
export function scoreOf(job: LaidJob, shop: Shop, outcome: Outcome, dryShareRacing = 0): LayoutScore {
  const sums = partSums(job, shop);
  const density = settledIn(job, 'resin.density');
  const inPart = density * (sums.resinInPlies + sums.resinInCore);
  const isDry = outcome.band === 'drySpot';
  return {
    band: outcome.band,
    fillTime: outcome.fillTime ?? Infinity,
    gelTime: outcome.gelTime,
    timeUsed: outcome.timeUsed ?? Infinity,
    chance: outcome.chance,
    wetShare: outcome.wetShare,
    dryShare: Math.max(outcome.dryArea / sums.area, isDry ? Math.max(1e-3, 1 - outcome.wetShare) : 0),
    dryShareRacing,
    waste: inPart > 0 ? outcome.wastedResin / inPart : 0,
    operatorActions: outcome.operatorActions,
    laidLength: outcome.lineLength + outcome.hoseLength,
  };
}

/** Largest dry share of runs in which resin races along one of the longest sides. */
function racingDryShare(job: LaidJob, shop: Shop): number {
  const gap = settledIn(job, 'doubt.raceGap');
  const area = regionArea([partPatch(job.part)]);
  const shares = sidesOf(partShapeOf(job).outline)
    .slice(0, RACED_SIDES)
    .map((points, side) => {
      const raced = { ...job, lines: [...job.lines, raceAlong(points, side, gap)] };
      const flow = forecastJob(raced, shop, QUICK);
      return flow.dryRegions.reduce((sum, region) => sum + region.area, 0) / area;
    });
  return Math.max(0, ...shares);
}

const templateWords: Record<TemplateRequest['template'], (count: number) => string> = {
  edgeToEdge: () => 'one feed, from end to end',
  parallel: (count) => `${count} feeds in a row, one after the other`,
  outward: (count) => `${count} feeds from the middle outwards`,
  centreRing: () => 'one feed down the middle, vent all round',
  spine: (count) => `a spine with ${count} ribs, vent all round`,
  radial: (count) => `${count} spokes from the middle, vent all round`,
  point: () => 'one feed point in the middle, vent all round',
};

/** "3 feeds in a row, one after the other" */
export const layoutWords = ({ template, count, direction, together }: TemplateRequest): string => {
  const words = templateWords[template](
    template === 'outward' ? 2 * Math.max(1, Math.floor(count / 2)) + 1 : count,
  );
  const way =
    direction === 'short' && template !== 'point' && template !== 'radial' ? ', across the part' : '';
  return (
    (together
      ? words.replace('one after the other', 'all at once').replace('outwards', 'outwards, all at once')
      : words) + way
  );
};

/** Why a proposal stands where it stands: what it does best among those shown, and what it costs. */
export function reasonWords(score: LayoutScore, all: readonly LayoutScore[]): string {
  const least = (value: (score: LayoutScore) => number) =>
    value(score) <= Math.min(...all.map(value)) * (1 + 1e-6) + 1e-12;
  const fills = score.fillTime < score.gelTime;
  const leanest = Math.min(...all.map(({ waste }) => waste));
  const share = (part: number) => `${Math.round(100 * part)} %`;
  const merits = [
    fills && least((s) => s.fillTime) && 'fills soonest',
    fills && least((s) => -s.chance) && score.chance > 0.9 && 'surest',
    least((s) => s.waste) && 'wastes least resin',
    least((s) => s.operatorActions) &&
      `least work (${score.operatorActions} ${score.operatorActions === 1 ? 'valve' : 'valves'})`,
  ].filter((word) => word !== false);
  const faults = [
    score.dryShare > 1e-4 && `shuts in ${share(score.dryShare)} of the part`,
    !fills && `gels with ${share(score.wetShare)} wet`,
    score.dryShareRacing > 1e-3 && `would shut in ${share(score.dryShareRacing)} if an edge raced`,
    fills && score.chance < 0.8 && `only ${Math.round(100 * score.chance)} in 100 fill before gel`,
    score.waste > leanest + 0.15 &&
      `wastes ${share(score.waste - leanest)} of the part’s resin more than the leanest`,
    score.operatorActions > 3 && `${score.operatorActions} valves to turn`,
  ].filter((word) => word !== false);
  const middling = fills ? `uses ${share(score.timeUsed)} of the usable time` : '';
  const [first, ...rest] = merits.length > 0 ? merits : [middling];
  const good = [first, ...rest].filter(Boolean).join(', ');
  const sentence = [good, faults.join(', ')].filter(Boolean).join('; but it ');
  return `${sentence.charAt(0).toUpperCase()}${sentence.slice(1)}.`
    .replace('but it only', 'but only')
    .replace(/but it (\d)/, 'but $1');
}
