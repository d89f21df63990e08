import type { LayerKind } from '@wick/contract/job/stack';
import type { Material, MaterialKind } from '@wick/contract/materials';

/** A kind of layer: what it is called, and what it may be cut from. */
interface KindOfLayer {
  readonly word: string;
  /** Null where it is cut from nothing of its own. */
  readonly material: MaterialKind | null;
  /** Among the materials of that kind. */
  readonly suits?: (material: Material) => boolean;
}

const ofUse =
  (...uses: readonly string[]) =>
  (material: Material): boolean =>
    !('use' in material) || material.use == null || uses.includes(material.use);

const kindsOfLayer: Readonly<Record<LayerKind, KindOfLayer>> = {
  peelPly: { word: 'peel ply', material: 'peelPly' },
  perforatedFilm: { word: 'perforated film', material: 'film', suits: ofUse('perforated') },
  releaseFilm: { word: 'release film', material: 'film', suits: ofUse('release') },
  flowMesh: { word: 'flow mesh', material: 'flowMesh' },
  bleeder: { word: 'bleeder', material: 'bleeder' },
  breather: { word: 'breather', material: 'bleeder' },
  lines: { word: 'lines', material: null },
  doubleTape: { word: 'double-sided tape', material: 'tape', suits: ofUse('double') },
  flashTape: { word: 'flash tape', material: 'tape', suits: ofUse('flash') },
  sealantTape: { word: 'sealant tape', material: 'tape', suits: ofUse('sealant') },
  bag: { word: 'bag', material: 'film', suits: ofUse('bag') },
};

export const layerWord = (kind: LayerKind): string => kindsOfLayer[kind].word;
export const materialKindOf = (kind: LayerKind): MaterialKind | null => kindsOfLayer[kind].material;

/** Whether a layer may be cut from a material. */
export const isCutFrom = (kind: LayerKind, material: Material): boolean => {
  const { material: wanted, suits } = kindsOfLayer[kind];
  return material.kind === wanted && (suits?.(material) ?? true);
};
