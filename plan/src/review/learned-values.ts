import type { LearnedSide } from '@wick/contract/material/learned';
import type { Material } from '@wick/contract/materials';
import { hashOf } from '../forecast/key.ts';
import { AS_STATED, scaledMaterial } from '../forecast/draw.ts';
import { learnedNames } from './names.ts';

/** Which sides of an entry can be learned. */
export const sidesOf = ({ kind }: Pick<Material, 'kind'>): readonly LearnedSide[] =>
  kind === 'fabric'
    ? ['permeability', 'compaction']
    : kind === 'flowMesh'
      ? ['permeability']
      : kind === 'resin'
        ? ['viscosity', 'gelTime']
        : [];

/** The entry with one side multiplied. */
function scaled(material: Material, side: LearnedSide, factor: number): Material {
  switch (side) {
    case 'compaction':
      return scaledMaterial(material, { ...AS_STATED, thickness: 1 / factor });
    default:
      return scaledMaterial(material, { ...AS_STATED, [side]: factor });
  }
}

/** Digits kept of what is multiplied, and of what is set back to as it was once typed; by fewer it is compared. */
const WRITTEN = 9;
const TYPED = 6;
const COMPARED = 4;
const written = <T>(value: T, digits: number): T => {
  if (typeof value === 'number') return Number(value.toPrecision(digits)) as T;
  if (Array.isArray(value)) return value.map((own: unknown) => written(own, digits)) as T;
  if (value !== null && typeof value === 'object')
    return Object.fromEntries(Object.entries(value).map(([key, own]) => [key, written(own, digits)])) as T;
  return value;
};

/** The values that a side multiplies. */
function valuesOf(material: Material, side: LearnedSide): Partial<Material> {
  const keys: Readonly<Record<LearnedSide, readonly string[]>> = {
    permeability: ['permeability'],
    compaction: ['compaction'],
    viscosity: ['viscosityPoints', 'kinetics'],
    gelTime: ['gelPoints', 'gelTable', 'viscosityCurve', 'kinetics'],
  };
  return Object.fromEntries(
    Object.entries(material).filter(([key]) => keys[side].includes(key)),
  ) as Partial<Material>;
}

/** By which the side has been multiplied so far. */
export const factorIn = ({ learned }: Material, side: LearnedSide): number => learned?.[side]?.factor ?? 1;

/** Key of the values a side stood on before anything was learned: a value that is typed anew begins anew. */
export function baseOf(material: Material, side: LearnedSide): string {
  // Kinetics stand behind viscosity and gel time alike: what was learned of either is taken off.
  const before = sidesOf(material).reduce<Material>(
    (own, each) => scaled(own, each, 1 / factorIn(material, each)),
    material,
  );
  return hashOf(written(valuesOf(before, side), COMPARED));
}

export interface LearnedOffer {
  readonly factor: number;
  /** x/÷ of the next run */
  readonly doubt: number;
  readonly runIds: readonly string[];
}

/** An entry with what was learned of a side in the place of what was learned before; null sets it back. */
export function withLearned(material: Material, side: LearnedSide, offer: LearnedOffer | null): Material {
  const by = (offer?.factor ?? 1) / factorIn(material, side);
  const values = written(valuesOf(scaled(material, side, by), side), offer ? WRITTEN : TYPED);
  const { [side]: _before, ...others } = material.learned ?? {};
  const learned = offer
    ? {
        ...others,
        [side]: { factor: offer.factor, doubt: offer.doubt - 1, runIds: [...offer.runIds] },
      }
    : others;
  const { learned: _learned, ...rest } = material;
  return {
    ...rest,
    ...values,
    ...(Object.keys(learned).length > 0 ? { learned } : {}),
  } as Material;
}

/** "measured here, 4 runs"; null where it was not. */
export function measuredHere({ learned }: Material, side: LearnedSide): string | null {
  const count = learned?.[side]?.runIds.length ?? 0;
  return count === 0 ? null : `measured here, ${count} ${count === 1 ? 'run' : 'runs'}`;
}

/** "Net mesh open: permeability measured here, 4 runs, x/÷ 1.27", of all that a job is made of. */
export const allMeasuredHere = (materials: readonly Material[]): string[] =>
  materials.flatMap((material) =>
    sidesOf(material).flatMap((side) => {
      const words = measuredHere(material, side);
      return words
        ? [
            `${material.name}: ${learnedNames[side]} ${words}, x/÷ ${(1 + material.learned![side]!.doubt).toFixed(2)}`,
          ]
        : [];
    }),
  );
