import type { JobLayer } from '@wick/contract/job/stack';
import type { Material } from '@wick/contract/materials';
import type { Shop } from '@wick/contract/shop';
import { polygonOf } from '@wick/core/geometry/arcs';
import { sidesOf } from '@wick/core/geometry/sides';
import { regionArea, subtract, type Region } from '@wick/core/geometry/overlay';
import { lineLength } from '@wick/core/geometry/polygon';
import { piecesOf } from '@wick/core/kit/cut-pieces';
import { nest } from '@wick/core/kit/nest';
import { resinLedger } from '@wick/core/ledger/resin-ledger';
import { ModelError } from '@wick/core/model-error';
import { bagOf, type Bag } from '../bag/bag.ts';
import type { LaidJob } from '../job/laid.ts';
import { materialOf } from '../job/material-of.ts';
import { booksOf } from '../laminate/books.ts';
import { cutSheetOf } from '../laminate/cut-sheet.ts';
import { partSums, regionsOf } from '../laminate/ply-book.ts';
import { hoseRunsOf } from '../layout/hoses.ts';
import { ledgerRequestOf } from '../resin/ledger.ts';
import { isLeftOff } from '../stack/laid-on.ts';
import { layerWord } from '../stack/kinds.ts';
import { layersOf } from '../stack/lies.ts';
import { regionOf } from '../stack/regions.ts';

/** What is counted: square metres, metres, kilograms, pieces. */
export type TakenUnit = 'area' | 'length' | 'mass' | 'piece';

/** A thing to fetch, with what asked for it. */
export interface TakenItem {
  /** In order of use. */
  readonly phase: 'plies' | 'stack' | 'lines' | 'resin' | 'hands';
  readonly name: string;
  readonly material: Material | null;
  readonly amount: number;
  readonly unit: TakenUnit;
  /** "peel ply, 20 mm past the edge: 1.2 m of a roll 1.5 m wide" */
  readonly why: string;
  /** Weight, kg; null where nobody has said what it weighs. */
  readonly weight: number | null;
  /** In the workshop's money, spread over the parts it serves; null where it has no price. */
  readonly cost: number | null;
  /** It comes back to be used again. */
  readonly comesBack: boolean;
  /** From the shelf, partly, or all to buy; null where nobody has counted the shelf. */
  readonly shelf: {
    readonly inStock: number;
    readonly toBuy: number;
    readonly isBelowMinimum: boolean;
  } | null;
}

export interface TakeOff {
  readonly items: readonly TakenItem[];
  readonly cost: number;
  /** Items without a price. */
  readonly unpriced: number;
  readonly weight: number;
}

export interface TakeOffRequest {
  readonly shop: Shop;
  /** What the workshop has: prices and shelf are those of today. */
  readonly materials: readonly Material[];
  readonly people: number;
  readonly hours: number;
}

/** m. Common practice, no source. */
const CORNER_LAP = 0.05;
const USUAL_ROLL = 1.25;
/** Pairs of gloves that one pair of hands wears out in an hour: common practice, no source. */
const GLOVES_AN_HOUR = 1;
/** A bucket is filled to this share: common practice, no source. */
const FULL_BUCKET = 0.6;

/**
 * Everything that a job takes, in order of use, each traced to what asked for it.
 * Arithmetic over plies, layers, lines and ledger. Checked by take-off.test.ts.
 */
export function takeOffOf(job: LaidJob, request: TakeOffRequest): TakeOff {
  const bag = bagOf(job, request.shop);
  const items = [
    ...pliesOf(job),
    ...job.layers.flatMap((layer) => layerItem(job, layer, bag)),
    ...linesOf(job),
    ...fittingsOf(job, request.materials),
    ...resinOf(job, request),
    ...handsOf(request, batchesOf(job)),
  ].map((item) => priced(item, request.materials));
  return {
    items,
    cost: items.reduce((sum, { cost }) => sum + (cost ?? 0), 0),
    unpriced: items.filter(({ cost }) => cost === null).length,
    weight: items.reduce((sum, { weight }) => sum + (weight ?? 0), 0),
  };
}

type Bare = Omit<TakenItem, 'cost' | 'comesBack' | 'shelf' | 'weight'> & {
  /** kg a unit; null where it is not known. */
  readonly each: number | null;
  /** Parts it serves, where the job says so. */
  readonly uses?: number | null;
};

function priced({ each, uses, ...item }: Bare, materials: readonly Material[]): TakenItem {
  const now = materials.find(({ id }) => id === item.material?.id) ?? item.material;
  const serves = uses ?? (now && 'uses' in now ? now.uses : null) ?? 1;
  const inStock = now?.stock?.amount ?? null;
  return {
    ...item,
    weight: each === null ? null : each * item.amount,
    cost: now?.price == null ? null : (now.price * item.amount) / serves,
    comesBack: serves > 1,
    shelf:
      inStock === null
        ? null
        : {
            inStock: Math.min(inStock, item.amount),
            toBuy: Math.max(0, item.amount - inStock),
            isBelowMinimum: inStock - (serves > 1 ? 0 : item.amount) < (now?.stock?.minimum ?? 0),
          },
  };
}

const perMetre = (value: number) => `${(Math.round(100 * value) / 100).toFixed(2)} m`;

function pliesOf(job: LaidJob): Bare[] {
  const sheet = cutSheetOf(job, 0);
  const cloths = sheet.rolls.map(({ materialId, name, width, nest: own }): Bare => {
    const fabric = materialOf(job, materialId, 'fabric');
    return {
      ...{ phase: 'plies', name, material: fabric, unit: 'area', amount: own.length * width },
      why: `plies, nested: ${perMetre(own.length)} of a roll ${perMetre(width)} wide, ${Math.round(100 * own.usedShare)} % of it used`,
      each: fabric?.arealWeight ?? null,
    };
  });
  const regions = regionsOf(job);
  const cores = booksOf(job).flatMap(({ laminate, name }, n): Bare[] => {
    const core = materialOf(job, laminate.coreId, 'core');
    const area = regionArea(regions[n]!);
    if (!core || area === 0) return [];
    return [
      {
        ...{ phase: 'plies', name: core.name, material: core, unit: 'area', amount: area },
        why: `core of ${name.toLowerCase()}`,
        each: core.thickness * core.density,
      },
    ];
  });
  return [...cloths, ...cores];
}

/** A layer as it is cut: sheets nested on their roll, tapes by the metre with their corners, the bag by its own blank. */
function layerItem(job: LaidJob, layer: JobLayer, bag: Bag): Bare[] {
  if (layer.kind === 'lines') return [];
  const material = job.materials.find(({ id }) => id === layer.materialId) ?? null;
  const name = material?.name ?? layerWord(layer.kind);
  const own = { phase: 'stack', name, material, uses: layer.uses } as const;
  if (material?.kind === 'tape' || layer.kind.endsWith('Tape'))
    return [{ ...own, ...tapeOf(job, layer, bag) }];
  if (layer.kind === 'bag') {
    const { length, width, joins } = bag.film;
    return [
      {
        ...own,
        ...{ unit: 'area', amount: length * width, each: sheetWeight(material) },
        why: `bag: cut ${perMetre(length)} by ${perMetre(width)}${joins > 0 ? `, ${joins} ${joins === 1 ? 'join' : 'joins'}` : ''}`,
      },
    ];
  }
  const region = cutRegion(job, layer);
  const net = regionArea(region);
  if (net === 0) return [];
  const rollWidth = (material && 'rollWidth' in material ? material.rollWidth : null) ?? USUAL_ROLL;
  const cut = { order: 1, name, materialId: layer.id, angle: 0, region };
  const { length } = nest(piecesOf(cut, rollWidth, layer.lap), rollWidth);
  return [
    {
      ...own,
      ...{ unit: 'area', amount: length * rollWidth, each: sheetWeight(material) },
      why: `${layerWord(layer.kind)}: ${net.toFixed(2)} m² lie, ${perMetre(length)} of a roll ${perMetre(rollWidth)} wide`,
    },
  ];
}

/** Where it is left off, nothing is cut for. */
function cutRegion(job: LaidJob, layer: JobLayer): Region {
  const regions = regionsOf(job);
  return booksOf(job).reduce<Region>(
    (left, { zoneId }, n) =>
      isLeftOff(layer, zoneId) && zoneId !== null ? subtract(left, regions[n]!) : left,
    regionOf(job, layer),
  );
}

function sheetWeight(material: Material | null): number | null {
  return material && 'arealWeight' in material ? (material.arealWeight ?? null) : null;
}

function tapeOf(job: LaidJob, layer: JobLayer, bag: Bag): Pick<Bare, 'amount' | 'unit' | 'why' | 'each'> {
  const { covers } = layer;
  const tape = materialOf(job, layer.materialId, 'tape');
  const corners = sidesOf(polygonOf(job.part.outline)).length;
  const round =
    covers.kind === 'rim' && layer.kind === 'sealantTape'
      ? bag.tape
      : regionArea(regionOf(job, layer)) / (tape?.tapeWidth ?? 0.025);
  const length = round + (covers.kind === 'rim' ? corners * CORNER_LAP : 0);
  const rolls = tape?.rollLength ? Math.ceil(length / tape.rollLength) : null;
  return {
    ...{ amount: length, unit: 'length', each: null },
    why: `${layerWord(layer.kind)}: ${perMetre(round)} round${bag.pleats.length > 0 && layer.kind === 'sealantTape' ? ` with ${bag.pleats.length} pleats` : ''}, ${corners} ${corners === 1 ? 'corner' : 'corners'} lapped${rolls ? `; ${rolls} ${rolls === 1 ? 'roll' : 'rolls'}` : ''}`,
  };
}

/** Lines and hoses by what they are cut from. */
function linesOf(job: LaidJob): Bare[] {
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
function fittingsOf(job: LaidJob, materials: readonly Material[]): Bare[] {
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

function resinOf(job: LaidJob, { shop, materials }: TakeOffRequest): Bare[] {
  const resin = materialOf(job, job.resin.materialId, 'resin');
  if (!resin || job.laminate.plies.length === 0) return [];
  try {
    const ledger = resinLedger(ledgerRequestOf(job, partSums(job, shop)));
    const bucket = materials.find((own) => own.kind === 'pot' && own.use === 'mixing') ?? null;
    const held = bucket?.kind === 'pot' ? bucket.capacity * FULL_BUCKET * resin.density : Infinity;
    return [
      {
        ...{ phase: 'resin', name: resin.name, material: resin, unit: 'mass', amount: ledger.total, each: 1 },
        why: `ledger: ${(1e3 * ledger.resin).toFixed(0)} g resin and ${(1e3 * ledger.hardener).toFixed(0)} g hardener`,
      },
      {
        ...{ phase: 'resin', name: bucket?.name ?? 'Bucket', material: bucket, unit: 'piece', each: null },
        amount: Math.max(1 + job.resin.batches.length, Math.ceil(ledger.total / held)),
        why: 'mix, filled to six tenths',
      },
    ];
  } catch (error) {
    if (error instanceof ModelError) return [];
    throw error;
  }
}

const batchesOf = (job: LaidJob) => (job.resin.materialId === null ? 0 : 1 + job.resin.batches.length);

function handsOf({ people, hours, materials }: TakeOffRequest, batches: number): Bare[] {
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
