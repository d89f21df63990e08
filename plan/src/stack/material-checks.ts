import type { Material } from '@wick/contract/materials';
import { materialOf } from '../job/material-of.ts';
import { bleedOf } from './bleed.ts';
import { addLayer, newLayer, updateLayer } from './edits.ts';
import { isCutFrom } from './kinds.ts';
import { isWetted, layersOf, tapeBand } from './lies.ts';
import { otherMesh, withCore } from './mends.ts';
import type { Rule } from './rule.ts';

/** Rules of a stack about what its layers are cut from. Common practice, no source. Checked by checks.test.ts. */
export const materialRules = {
  meshForViscosity: (job, context) => [otherMesh(job, context)],

  openCore: (job, { materials }) =>
    (job.process === 'infusion' ? [null, ...job.zones.map(({ id }) => id)] : []).map((zoneId) => {
      const laminate = zoneId === null ? job.laminate : job.zones.find(({ id }) => id === zoneId)!.laminate;
      const core = materialOf(job, laminate.coreId, 'core');
      const closed = materials
        .filter((own) => own.kind === 'core' && own.cells !== 'open')
        .sort((a, b) => thicknessOff(a, core) - thicknessOff(b, core))[0];
      return (
        core?.cells === 'open' && {
          itemId: null,
          message: `${core.name} has open cells: infused, they fill with resin.`,
          fix: closed ? { label: `${closed.name} instead`, apply: withCore(zoneId, closed) } : null,
        }
      );
    }),

  coatedWhereBonded: (job, { materials }) =>
    layersOf(job, 'peelPly').map((layer) => {
      const peel = materialOf(job, layer.materialId, 'peelPly');
      const other = materials.find((own) => own.kind === 'peelPly' && own.finish !== 'coated');
      return (
        job.bondFace === layer.side &&
        peel?.finish === 'coated' && {
          itemId: layer.id,
          message: `${peel.name} leaves its coating on a face that is to be bonded: what is glued there comes off.`,
          fix: other
            ? {
                label: `${other.name} instead`,
                apply: updateLayer(layer.id, { materialId: other.id }, other),
              }
            : null,
        }
      );
    }),

  landNotMasked: (job, { materials }) => {
    const tape = tapeBand(job);
    const masked = layersOf(job, 'flashTape').some(
      ({ covers }) => covers.kind === 'rim' && tape && covers.from <= tape.from && covers.to >= tape.to,
    );
    const flash = materials.find((own) => isCutFrom('flashTape', own)) ?? null;
    return [
      isWetted(job) &&
        tape !== null &&
        !masked && {
          itemId: null,
          message:
            'The land of the tape is not masked: resin gets on it while plies are wetted, and tape does not stick to resin.',
          fix: {
            label: 'Mask it first',
            apply: addLayer(
              { ...newLayer('flashTape', flash?.id ?? null), covers: { kind: 'rim', ...tape } },
              flash,
            ),
          },
        },
    ];
  },

  tooHot: (job, { shop, materials, show }) => {
    const hottest = job.resin.cureTemperature ?? job.resin.mouldTemperature ?? shop.temperature;
    const named = (id: string | null) => job.materials.find((own) => own.id === id);
    const lines = job.lines.flatMap(({ id, name, stockId, hoseId }) =>
      [named(stockId), named(hoseId)].map(
        (own) =>
          hottest > limitOf(own) && {
            itemId: id,
            message: `${own!.name} of ${name} stands ${show(limitOf(own), 'temperature')}; the cure reaches ${show(hottest, 'temperature')}. Choose a hotter one under Lines.`,
            fix: null,
          },
      ),
    );
    const layers = job.layers.map((layer) => {
      const material = named(layer.materialId);
      const other = materials.find(
        (own) =>
          isCutFrom(layer.kind, own) &&
          'maxTemperature' in own &&
          (own.maxTemperature ?? -Infinity) >= hottest,
      );
      return (
        hottest > limitOf(material) && {
          itemId: layer.id,
          message: `${material!.name} stands ${show(limitOf(material), 'temperature')}; the cure reaches ${show(hottest, 'temperature')}.`,
          fix: other
            ? {
                label: `${other.name} instead`,
                apply: updateLayer(layer.id, { materialId: other.id }, other),
              }
            : null,
        }
      );
    });
    return [...layers, ...lines];
  },

  bleederTooSmall: (job, { shop, materials, show }) => {
    const bleed = bleedOf(job, shop);
    const thick = materials
      .filter((own) => own.kind === 'bleeder')
      .sort((a, b) => b.resinUptake - a.resinUptake)[0];
    const [layer] = layersOf(job, 'bleeder', 'breather');
    return [
      bleed !== null &&
        layer !== undefined &&
        bleed.held < bleed.bled && {
          itemId: layer.id,
          message: `Wetted with as much resin as fibre, the plies give up ${show(bleed.bled, 'thickness')}; what lies over them holds ${show(bleed.held, 'thickness')}: once it is full nothing more comes out.`,
          fix: thick
            ? {
                label: `Lay ${thick.name} besides`,
                apply: addLayer(newLayer('bleeder', thick.id), thick),
              }
            : null,
        },
    ];
  },
} satisfies Record<string, Rule>;

const thicknessOff = (material: Material, like: { thickness: number } | null) =>
  material.kind === 'core' ? Math.abs(material.thickness - (like?.thickness ?? 0)) : Infinity;

/** K that a thing stands; as much as there is where nobody has said. */
const limitOf = (material: Material | undefined): number =>
  material && 'maxTemperature' in material ? (material.maxTemperature ?? Infinity) : Infinity;
