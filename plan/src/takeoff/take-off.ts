import type { JobLayer } from '@wick/contract/job/stack';
import type { Material } from '@wick/contract/materials';
import { polygonOf } from '@wick/core/geometry/arcs';
import { sidesOf } from '@wick/core/geometry/sides';
import { regionArea, subtract, type Region } from '@wick/core/geometry/overlay';
import { piecesOf } from '@wick/core/kit/cut-pieces';
import { nest } from '@wick/core/kit/nest';
import { batchesMixed, fittingsOf, handsOf, linesOf, resinOf } from './lines-and-hands.ts';
import type { Bare, TakenItem, TakeOffRequest } from './taken.ts';
import { bagOf, type Bag } from '../bag/bag.ts';
import type { LaidJob } from '../job/laid.ts';
import { materialOf } from '../job/material-of.ts';
import { booksOf } from '../laminate/books.ts';
import { cutSheetOf, USUAL_ROLL } from '../laminate/cut-sheet.ts';
import { regionsOf } from '../laminate/regions.ts';
import { isLeftOff } from '../stack/laid-on.ts';
import { layerWord } from '../stack/kinds.ts';
import { regionOf } from '../stack/regions.ts';

export interface TakeOff {
  readonly items: readonly TakenItem[];
  readonly cost: number;
  /** Items without a price. */
  readonly unpriced: number;
  readonly weight: number;
}

/** m. Common practice, no source. */
const CORNER_LAP = 0.05;

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
    ...handsOf(request, batchesMixed(job)),
  ].map((item) => priced(item, request.materials));
  return {
    items,
    cost: items.reduce((sum, { cost }) => sum + (cost ?? 0), 0),
    unpriced: items.filter(({ cost }) => cost === null).length,
    weight: items.reduce((sum, { weight }) => sum + (weight ?? 0), 0),
  };
}

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
