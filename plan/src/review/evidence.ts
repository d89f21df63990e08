import type { LearnedSide } from '@wick/contract/material/learned';
import type { Material } from '@wick/contract/materials';
import type { Evidence } from '@wick/contract/run/review-bodies';
import type { Shop } from '@wick/contract/shop';
import { orNull } from '@wick/core/model-error';
import { freshViscosity } from '@wick/core/resin/resin-system';
import { clockOf } from '@wick/core/verdict/verdict';
import type { LaidJob } from '../job/laid.ts';
import { materialOf } from '../job/material-of.ts';
import { isOf, type RunState } from '../run/state.ts';
import type { FillReview } from './fill-review.ts';
import { baseOf, factorIn } from './learned-values.ts';
import { plannedPartOf } from './planned-part.ts';
import type { Share } from './shares.ts';

/** Standard deviations of ln: of a gel time by touch, in a film and in a pot; of a cup; of one gauge reading. Common practice, no source. */
const BY_TOUCH = 0.08;
const IN_POT = 0.15;
const CUP = 0.05;
const ONE_GAUGE = 0.03;
/** Marks at several places still share how the day was. */
const MARKS_SHARE = 0.03;

const partOf = (material: Material, side: LearnedSide, share: number): Evidence['parts'][number] => ({
  ...{ materialId: material.id, side, share: Number(share.toFixed(4)) },
  used: factorIn(material, side),
  base: baseOf(material, side),
});
const told = (side: LearnedSide, value: number, deviation: number, parts: Evidence['parts']): Evidence[] =>
  parts.length > 0 && Number.isFinite(value) && deviation > 0
    ? [{ side, told: Number(value.toFixed(5)), deviation: Number(deviation.toFixed(5)), parts }]
    : [];

/**
 * What a run tells of the library's values, side by side: how resin runs, from the marks; viscosity, from a cup; gel time, from part, cup
 * or pot; how fabrics press, from thickness.
 * @param shares of sharesOf
 */
export function evidenceOf(
  job: LaidJob,
  shop: Shop,
  state: Pick<RunState, 'entries'>,
  fill: FillReview | null,
  shares: readonly Share[],
): Evidence[] {
  return [
    ...ofFront(job, fill, shares),
    ...ofCups(job, state),
    ...ofGel(job, state, fill),
    ...ofThickness(job, shop, state),
  ];
}

/** The one factor of the marks is on permeability over viscosity: each takes its share. */
function ofFront(job: LaidJob, fill: FillReview | null, shares: readonly Share[]): Evidence[] {
  if (!fill?.factor) return [];
  const resin = materialOf(job, job.resin.materialId, 'resin');
  const parts = [
    ...shares.flatMap(({ materialId, share }) => {
      const material = job.materials.find(({ id }) => id === materialId);
      return material ? [partOf(material, 'permeability', share)] : [];
    }),
    ...(resin ? [partOf(resin, 'viscosity', -1)] : []),
  ];
  return told('permeability', fill.factor.mean, Math.hypot(fill.factor.deviation, MARKS_SHARE), parts);
}

function ofCups(job: LaidJob, { entries }: Pick<RunState, 'entries'>): Evidence[] {
  const resin = materialOf(job, job.resin.materialId, 'resin');
  if (!resin) return [];
  const logs = entries.filter(isOf('cupRead')).flatMap(({ body: { viscosity, temperature } }) => {
    const expected = orNull(() => freshViscosity(resin, temperature));
    return expected === null ? [] : [Math.log(viscosity / expected)];
  });
  return logs.length === 0
    ? []
    : told('viscosity', mean(logs), CUP / Math.sqrt(logs.length), [partOf(resin, 'viscosity', 1)]);
}

function ofGel(job: LaidJob, { entries }: Pick<RunState, 'entries'>, fill: FillReview | null): Evidence[] {
  const resin = materialOf(job, job.resin.materialId, 'resin');
  if (!resin || !fill) return [];
  const gelled = entries.filter(isOf('gelled'));
  const thin = gelled.find(({ body }) => body.where !== 'pot');
  const pot = gelled.find(({ body }) => body.where === 'pot');
  const logs: [number, number][] = [];
  const since = (at: string) => (Date.parse(at) - fill.clock.zero) / 1000;
  if (thin) logs.push([Math.log(since(thin.at) / fill.clock.clock.gelTime), BY_TOUCH]);
  const mass = fill.infusion.poured[0]?.mass;
  if (pot && mass !== undefined) {
    const { run } = fill.clock;
    const inPot = orNull(() => clockOf({ ...run, pot: { mass, ambient: run.temperature } }).gelTime);
    if (inPot !== null && inPot < Infinity) logs.push([Math.log(since(pot.at) / inPot), IN_POT]);
  }
  const precision = logs.reduce((sum, [, deviation]) => sum + deviation ** -2, 0);
  const middle = logs.reduce((sum, [log, deviation]) => sum + log * deviation ** -2, 0) / precision;
  return logs.length === 0
    ? []
    : told('gelTime', middle, 1 / Math.sqrt(precision), [partOf(resin, 'gelTime', 1)]);
}

/** Thickness of plies without a core under them; a core's own thickness would count as theirs. */
function ofThickness(job: LaidJob, shop: Shop, { entries }: Pick<RunState, 'entries'>): Evidence[] {
  const part = plannedPartOf(job, shop);
  if (!part) return [];
  const logs: number[] = [];
  const shares = new Map<string, number>();
  for (const { body } of entries.filter(isOf('gauged'))) {
    const place = part.at(body);
    const core = place ? place.thickness - place.plies : 0;
    if (!place || body.thickness <= core) continue;
    logs.push(Math.log(place.plies / (body.thickness - core)));
    for (const [id, share] of place.shares) shares.set(id, (shares.get(id) ?? 0) + share);
  }
  const parts = [...shares].flatMap(([id, share]) => {
    const material = job.materials.find((one) => one.id === id);
    return material ? [partOf(material, 'compaction', share / logs.length)] : [];
  });
  return logs.length === 0 ? [] : told('compaction', mean(logs), ONE_GAUGE / Math.sqrt(logs.length), parts);
}

const mean = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;
