import type { Shop } from '@wick/contract/shop';
import type { FlowForecast } from '@wick/core/flow/forecast';
import { lineLength } from '@wick/core/geometry/polygon';
import {
  resinLedger,
  type LedgerItem,
  type LedgerSource,
  type ResinLedger,
  type ResinLedgerRequest,
} from '@wick/core/ledger/resin-ledger';
import { orNull } from '@wick/core/model-error';
import type { LaidJob } from '../job/laid.ts';
import { materialOf } from '../job/material-of.ts';
import { partSums, type PartSums } from '../laminate/ply-book.ts';
import { boreVolume, hoseRunsOf } from '../layout/hoses.ts';
import { settledIn } from '../settle.ts';
import { layerWord } from '../stack/kinds.ts';
import { resinInLayer } from '../stack/uptake.ts';
import { batchCountOf, potsOf } from './pots.ts';

/** A pot of which nobody has said how much it holds: common practice, no source. */
const USUAL_POT = 0.01;

/** What of a forecast changes how much is mixed. */
export type LedgerFlow = Pick<FlowForecast, 'vented' | 'resinAtEnd'>;

/**
 * Input of the resin ledger; of no resin yet, with a usual density and no hardener.
 * @param flow of the job: its vents then count, and where it followed a soft laminate how that settled
 */
export function ledgerRequestOf(
  job: LaidJob,
  sums: PartSums,
  flow: LedgerFlow | null = null,
): ResinLedgerRequest {
  return {
    density: settledIn(job, 'resin.density'),
    hardenerParts: materialOf(job, job.resin.materialId, 'resin')?.hardenerParts ?? 0,
    items: [...inLaminates(sums, flow), ...inLayers(job), ...inLines(job), ...ofVents(job, flow)],
    reserve: job.resin.reserve,
    leftInPot: settledIn(job, 'resin.heel'),
    potCapacity: materialOf(job, job.resin.feedPotId, 'pot')?.capacity ?? USUAL_POT,
    potCount: potsOf(job).length,
    batchCount: batchCountOf(job),
    fibre: sums.fibre,
  };
}

function inLaminates(sums: PartSums, flow: LedgerFlow | null): LedgerItem[] {
  const sourceOf = (zoneId: string | null): LedgerSource =>
    zoneId === null ? { kind: 'part', id: null } : { kind: 'zone', id: zoneId };
  const single = sums.books.length === 1;
  const plies = sums.books.map(({ zoneId, name, isBrake, resinInPlies }): LedgerItem => ({
    what: 'plies',
    name: single ? 'Plies' : `Plies, ${name}`,
    volume: resinInPlies,
    where: isBrake ? 'waste' : 'part',
    sources: [sourceOf(zoneId)],
  }));
  const opens = flow?.resinAtEnd ? Math.max(0, flow.resinAtEnd - sums.resinInPlies) : sums.resinAsItOpens;
  const withCore = sums.books.filter(({ resinInCore }) => resinInCore > 0);
  return [
    ...plies,
    {
      what: 'opens',
      name: 'As the plies open up under it',
      volume: opens,
      where: 'part',
      sources: sums.books.filter((own) => own.resinAsItOpens > 0).map(({ zoneId }) => sourceOf(zoneId)),
    },
    {
      what: 'core',
      name: 'Core holes, cuts and faces',
      volume: sums.resinInCore,
      where: 'part',
      sources: withCore.map(({ zoneId }) => sourceOf(zoneId)),
    },
  ];
}

const inLayers = (job: LaidJob): LedgerItem[] =>
  job.layers.map((layer) => ({
    what: 'layer',
    name: job.materials.find(({ id }) => id === layer.materialId)?.name ?? layerWord(layer.kind),
    volume: resinInLayer(job, layer),
    where: 'waste',
    sources: [{ kind: 'layer', id: layer.id }],
  }));

function inLines(job: LaidJob): LedgerItem[] {
  const lines = job.lines
    .filter(({ kind }) => kind === 'feed')
    .map(({ id, name, points, bore }): LedgerItem => ({
      what: 'line',
      name,
      volume: boreVolume({ length: lineLength(points), bore }),
      where: 'waste',
      sources: [{ kind: 'line', id }],
    }));
  const tees = new Set(job.tees.map(({ id }) => id));
  const hoses = hoseRunsOf(job)
    .filter(({ kind }) => kind === 'feed')
    .map(({ id, name, length, bore }): LedgerItem => ({
      what: 'hose',
      name: `Hose to ${name}`,
      volume: boreVolume({ length, bore }),
      where: 'waste',
      sources: [{ kind: tees.has(id) ? 'tee' : 'line', id }],
    }));
  return [...lines, ...hoses];
}

const ofVents = (job: LaidJob, flow: LedgerFlow | null): LedgerItem[] => [
  {
    what: 'vents',
    name: 'Into the catch pot',
    volume: flow?.vented ?? 0,
    where: 'waste',
    sources: job.lines.filter(({ kind }) => kind === 'vent').map(({ id }) => ({ kind: 'line', id })),
  },
];

/** The ledger of a job; null where the laminate does not tell yet. */
export const ledgerOf = (job: LaidJob, shop: Shop, flow: LedgerFlow | null = null): ResinLedger | null =>
  job.laminate.plies.length === 0
    ? null
    : orNull(() => resinLedger(ledgerRequestOf(job, partSums(job, shop), flow)));

/** Resin to mix in all, kg; null where the laminate does not tell yet. */
export const resinToMix = (job: LaidJob, shop: Shop): number | null => ledgerOf(job, shop)?.total ?? null;
