import type { LearnedSide } from '@wick/contract/material/learned';
import type { Material } from '@wick/contract/materials';
import { usualDoubt } from '@wick/core/verdict/verdict';

/** How far an entry's values may be off, x/÷, by what of it. */

/** Of a permeability that its entry says nothing about: somebody else's data; from memory. */
export const OTHERS_DATA = 2;
/** Of a resin that is known at one temperature only, and of a pressed laminate; common practice, no source. */
const ONE_POINT = 1.3;
export const USUAL_THICKNESS = 1.05;

/** As an entry states it for a value or for any part of it; else what is usual. */
export function stated({ about = {} }: Material, isOf: (path: string) => boolean, usual: number): number {
  const doubts = Object.entries(about).flatMap(([path, { doubt }]) => (isOf(path) ? (doubt ?? []) : []));
  return doubts.length > 0 ? 1 + Math.max(...doubts) : usual;
}

export const isThrough = (path: string) => path.endsWith('.through');

/** What an entry states of each side that a workshop can learn. */
const paths: Readonly<Record<LearnedSide, (path: string) => boolean>> = {
  permeability: (path) => path.startsWith('permeability') && !isThrough(path),
  viscosity: (path) => path.startsWith('viscosity'),
  gelTime: (path) => path.startsWith('gel'),
  compaction: (path) => path.startsWith('compaction'),
};

/** Where an entry states none. */
function usualOf(material: Material, side: LearnedSide): number {
  if (side === 'permeability') return OTHERS_DATA;
  if (side === 'compaction') return USUAL_THICKNESS;
  if (material.kind !== 'resin' || material.kinetics) return usualDoubt[side];
  const isKnown =
    side === 'viscosity'
      ? material.viscosityPoints.length > 1
      : material.gelPoints.length > 1 || Boolean(material.gelTable);
  return isKnown ? usualDoubt[side] : ONE_POINT;
}

/** Of a side before the workshop learned of it. */
export const doubtBefore = (material: Material, side: LearnedSide): number =>
  stated(material, paths[side], usualOf(material, side));

/** Of a side: as it was measured here, else as the entry states it, else what is usual. */
export function carried(material: Material, side: LearnedSide): number {
  const here = material.learned?.[side];
  return here ? 1 + here.doubt : doubtBefore(material, side);
}
