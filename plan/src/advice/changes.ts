import type { Material, MaterialKind, MaterialOf } from '@wick/contract/materials';
import type { Shop } from '@wick/contract/shop';
import type { Change, ChangeEffect } from '@wick/core/verdict/changes';
import type { Stack } from '@wick/core/laminate/stack';
import type { LaidJob } from '../job/laid.ts';
import { stackOf } from '../laminate/stack.ts';
import { meshedWith, meshOf } from '../stack/mesh.ts';
import { settle } from '../settle.ts';

const AS_IT_IS = 'as it is';
/** K by which a workshop is made warmer or cooler without much ado: common practice, no source. */
const WARMER = 3;

/** Changes that a solved flow answers by look-up: temperature, mesh, resin; and none. */
export function changesFor(job: LaidJob, shop: Shop, materials: readonly Material[]): Change[] {
  const temperature = settle(job, shop)['resin.temperature'].value;
  const speed = ({ transmissibility, storage }: Stack) =>
    (transmissibility.xx + transmissibility.yy) / storage;
  const now = speed(stackOf(job, shop));
  const withMesh = (mesh: MaterialOf<'flowMesh'>) => stackOf(meshedWith(job, mesh), shop);
  return [
    { label: AS_IT_IS },
    { label: `Resin and workshop ${WARMER} °C warmer`, run: { temperature: temperature + WARMER } },
    { label: `Resin and workshop ${WARMER} °C cooler`, run: { temperature: temperature - WARMER } },
    ...others(materials, 'flowMesh', meshOf(job)).map((mesh) => ({
      label: `${mesh.name} instead`,
      flowFactor: now / speed(withMesh(mesh)),
    })),
    ...others(materials, 'resin', job.resin.materialId).map((resin) => ({
      label: `${resin.name} instead`,
      run: { resin },
    })),
  ];
}

const others = <K extends MaterialKind>(materials: readonly Material[], kind: K, id: string | null) =>
  materials.filter((material): material is MaterialOf<K> => material.kind === kind && material.id !== id);

/** Only what is better than leaving things as they are. */
export const helpfulOf = (effects: readonly ChangeEffect[]): readonly ChangeEffect[] =>
  effects.slice(
    0,
    effects.findIndex(({ label }) => label === AS_IT_IS),
  );
