import type { Material } from '@wick/contract/materials';
import { lineLength } from '@wick/core/geometry/polygon';
import type { LaidJob } from '../job/laid.ts';
import { materialOf } from '../job/material-of.ts';
import { hoseRunsOf } from '../layout/hoses.ts';
import { ledgerOf } from '../resin/ledger.ts';
import { batchCountOf, FILLED_TO } from '../resin/pots.ts';
import { layersOf } from '../stack/lies.ts';
import type { Bare, TakeOffRequest } from './taken.ts';

/** Pairs of gloves that one pair of hands wears out in an hour: common practice, no source. */
const GLOVES_AN_HOUR = 1;

/** Lines and hoses by what they are cut from. */
export function linesOf(job: LaidJob): Bare[] {
  const found = new Map<string, Bare>();
  const add = (key: string, length: number, item: Omit<Bare, 'amount' | 'unit' | 'phase' | 'each'>) => {
    const known = found.get(key);
    found.set(key, {
      ...item,
      ...{ phase: 'lines', unit: 'length', each: null },
      amount: (known?.amount ?? 0) + length,
      why: known ? `${known.why}, ${item.why}` : item.why,
    });
  };
  for (const line of job.lines.filter(({ kind, points }) => kind !== 'race' && points.length > 1)) {
    const stock = materialOf(job, line.stockId, 'line');
    const name = stock?.name ?? `Line ${Math.round(1e3 * line.bore)} mm`;
    add(`line ${name}`, lineLength(line.points), { name, material: stock, why: line.name });
  }
  for (const hose of hoseRunsOf(job)) {
    const stock = materialOf(job, job.lines.find(({ id }) => id === hose.id)?.hoseId ?? null, 'hose');
    const name = stock?.name ?? `Hose ${Math.round(1e3 * hose.bore)} mm`;
    add(`hose ${name}`, hose.length, { name, material: stock, why: `to ${hose.name}` });
  }
  return [...found.values()];
}

/** Counted from lines and tees: one through the bag a line, a clamp a hose. */
export function fittingsOf(job: LaidJob, materials: readonly Material[]): Bare[] {
  const lines = job.lines.filter(({ kind }) => kind !== 'race');
  const feeds = lines.filter(({ kind }) => kind === 'feed').length;
  const used = (use: string) => materials.find((own) => own.kind === 'fitting' && own.use === use) ?? null;
  const counted = [
    {
      use: 'through',
      word: 'Bag fitting',
      amount: layersOf(job, 'bag').length > 0 ? lines.length : 0,
      why: 'one a line, and check it before the bag is shut',
    },
    { use: 'tee', word: 'Hose tee', amount: job.tees.length, why: 'one a tee on the plan' },
    {
      use: 'clamp',
      word: 'Hose clamp',
      amount: lines.length + feeds,
      why: 'one a hose, and one more a feed',
    },
  ];
  return counted
    .filter(({ amount }) => amount > 0)
    .map(({ use, word, amount, why }): Bare => ({
      ...{ phase: 'lines', unit: 'piece', amount, why, each: null },
      ...{ name: used(use)?.name ?? word, material: used(use) },
    }));
}

export function resinOf(job: LaidJob, { shop, materials }: TakeOffRequest): Bare[] {
  const resin = materialOf(job, job.resin.materialId, 'resin');
  const ledger = resin && ledgerOf(job, shop);
  if (!resin || !ledger) return [];
  const bucket =
    materialOf(job, job.resin.mixingPotId, 'pot') ??
    materials.find((own) => own.kind === 'pot' && own.use === 'mixing') ??
    null;
  const held = bucket?.kind === 'pot' ? bucket.capacity * FILLED_TO * resin.density : Infinity;
  return [
    {
      ...{ phase: 'resin', name: resin.name, material: resin, unit: 'mass', amount: ledger.total, each: 1 },
      why: `ledger: ${(1e3 * ledger.resin).toFixed(0)} g resin and ${(1e3 * ledger.hardener).toFixed(0)} g hardener`,
    },
    {
      ...{ phase: 'resin', name: bucket?.name ?? 'Bucket', material: bucket, unit: 'piece', each: null },
      amount: Math.max(batchCountOf(job), Math.ceil(ledger.total / held)),
      why: 'mix, filled to eight tenths',
    },
  ];
}

export const batchesMixed = (job: LaidJob) => (job.resin.materialId === null ? 0 : batchCountOf(job));

export function handsOf({ people, hours, materials }: TakeOffRequest, batches: number): Bare[] {
  const used = (use: string) => materials.find((own) => own.kind === 'sundry' && own.use === use) ?? null;
  const counted = [
    {
      ...{ use: 'gloves', word: 'Gloves, pair', amount: Math.ceil(people * hours * GLOVES_AN_HOUR) },
      why: `${people} ${people === 1 ? 'person' : 'people'}, ${hours} h, a pair an hour`,
    },
    { use: 'cup', word: 'Measuring cup', amount: 2 * batches, why: 'resin and hardener apart, a batch each' },
    { use: 'stick', word: 'Stirring stick', amount: batches, why: 'one a batch' },
  ];
  return counted
    .filter(({ amount }) => amount > 0)
    .map(({ use, word, amount, why }): Bare => ({
      ...{ phase: 'hands', unit: 'piece', amount, why, each: null },
      ...{ name: used(use)?.name ?? word, material: used(use) },
    }));
}
