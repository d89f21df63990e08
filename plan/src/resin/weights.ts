import type { Shop } from '@wick/contract/shop';
import type { FlowForecast } from '@wick/core/flow/forecast';
import { intersect, offset, regionArea } from '@wick/core/geometry/overlay';
import type { LaidJob } from '../job/laid.ts';
import { partSums, type BookSums } from '../laminate/ply-book.ts';
import { regionsOf } from '../laminate/regions.ts';
import { partPatch } from '../part/patch.ts';
import { settledIn } from '../settle.ts';
import { takeOffOf } from '../takeoff/take-off.ts';
import { USUAL_CREW } from '../takeoff/taken.ts';
import { ledgerOf } from './ledger.ts';

/** What the scale will say, kg. */
export interface Weights {
  readonly fibre: number;
  readonly core: number;
  /** Resin that stays in the part. */
  readonly resin: number;
  /** The part as it comes off the mould, brake and rim with it; and with the rim trimmed off and the brake. */
  readonly asLaid: number;
  readonly trimmed: number;
  /** Bag, consumables, lines and hoses, dry, and the resin in them. */
  readonly consumables: number;
  readonly resinInConsumables: number;
  /** Things of them of which nobody has said what they weigh. */
  readonly unknown: readonly string[];
  /** Resin in the catch pot. */
  readonly catchPot: number;
}

/** Ahead of the run; null where the laminate does not tell yet. @param flow of the job: what the vents draw then counts */
export function weightsOf(job: LaidJob, shop: Shop, flow: FlowForecast | null = null): Weights | null {
  const ledger = ledgerOf(job, shop, flow);
  if (!ledger) return null;
  const sums = partSums(job, shop);
  const density = settledIn(job, 'resin.density');
  const { rows } = ledger;
  const massOf = (isOwn: (row: (typeof rows)[number]) => boolean) =>
    rows.filter(isOwn).reduce((sum, { mass }) => sum + mass, 0);
  const opens = massOf(({ what }) => what === 'opens');
  const resin = massOf(({ where, what }) => where === 'part' || what === 'plies');
  const catchPot = massOf(({ what }) => what === 'vents');
  // How the plies open up is shared out by the resin between them.
  const openShare = sums.resinInPlies > 0 ? opens / (density * sums.resinInPlies) : 0;
  const weightOf = (own: BookSums) =>
    own.fibre + own.core + density * (own.resinInPlies * (1 + openShare) + own.resinInCore);
  const kept = keptShares(job);
  const dry = takeOffOf(job, { shop, materials: job.materials, ...USUAL_CREW }).items.filter(
    ({ phase }) => phase === 'stack' || phase === 'lines',
  );
  return {
    fibre: sums.fibre,
    core: sums.core,
    resin,
    asLaid: sums.fibre + sums.core + resin,
    trimmed: sums.books.reduce((sum, own, n) => sum + (own.isBrake ? 0 : weightOf(own) * kept[n]!), 0),
    consumables: dry.reduce((sum, { weight }) => sum + (weight ?? 0), 0),
    resinInConsumables: massOf(
      ({ where, what }) => where === 'waste' && what !== 'vents' && what !== 'plies',
    ),
    unknown: dry.filter(({ weight }) => weight === null).map(({ name }) => name),
    catchPot,
  };
}

/** Share of each laminate that stays when the rim is trimmed off. */
function keptShares(job: LaidJob): number[] {
  const regions = regionsOf(job);
  const { trim } = job.part;
  if (!trim) return regions.map(() => 1);
  const inside = offset([partPatch(job.part)], -trim);
  return regions.map((region) => {
    const area = regionArea(region);
    return area > 0 ? regionArea(intersect(region, inside)) / area : 0;
  });
}
