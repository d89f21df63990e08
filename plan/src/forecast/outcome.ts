import type { Outcome } from '@wick/contract/job/result';
import type { Shop } from '@wick/contract/shop';
import type { FlowForecast } from '@wick/core/flow/forecast';
import { lineLength } from '@wick/core/geometry/polygon';
import type { Verdict } from '@wick/core/verdict/verdict';
import type { LaidJob } from '../job/laid.ts';
import { hoseRunsOf } from '../layout/hoses.ts';
import { ledgerOf } from '../resin/ledger.ts';

/**
 * What a forecast comes to, for comparing layouts. Masses need a resin, and so does the verdict.
 * @param flow with its verdict, from the same job and shop
 */
export function outcomeOf(job: LaidJob, shop: Shop, flow: FlowForecast, verdict: Verdict): Outcome {
  const hoses = hoseRunsOf(job);
  const drawnLines = job.lines.filter(({ kind }) => kind !== 'race');
  const finite = (time: number) => (Number.isFinite(time) ? time : null);
  return {
    band: verdict.band,
    fillTime: finite(verdict.fillTime),
    gelTime: verdict.gelTime,
    endsUnknown: verdict.endsUnknown,
    earliest: finite(verdict.likely.from),
    latest: finite(verdict.likely.to),
    chance: verdict.chance,
    chanceFrom: verdict.chanceRange.from,
    chanceTo: verdict.chanceRange.to,
    lifeUsed: finite(verdict.lifeUsed),
    flowUsed: finite(verdict.flowUsed),
    timeUsed: finite(verdict.timeUsed),
    dryArea: flow.dryRegions.reduce((sum, region) => sum + region.area, 0),
    wetShare: Math.min(1, Math.max(0, verdict.reachedFraction)),
    wastedResin: wastedResin(job, shop, flow),
    lineLength: drawnLines.reduce((sum, { points }) => sum + lineLength(points), 0),
    hoseLength: hoses.reduce((sum, { length }) => sum + length, 0),
    operatorActions: operatorActionsOf(job),
  };
}

/** Resin that is thrown away, kg. */
function wastedResin(job: LaidJob, shop: Shop, flow: FlowForecast): number {
  const rows = ledgerOf(job, shop, flow)?.rows ?? [];
  return rows.filter(({ where }) => where === 'waste').reduce((sum, { mass }) => sum + mass, 0);
}

/** Valves turned during the fill, the first opening among them: lines that share a tee are opened by one. */
export function operatorActionsOf(job: LaidJob): number {
  const valves = job.lines.filter(({ kind }) => kind === 'feed');
  const starting = new Set(valves.filter((line) => line.startsOpen).map((line) => line.tee ?? line.id));
  return starting.size + job.lines.reduce((sum, { actions }) => sum + actions.length, 0);
}
