import type { JobLayer, LayerKind } from '@wick/contract/job/stack';
import type { ProcessId } from '../processes/processes.ts';

/** Usual order from the part up. Common practice, no source. */
const DRAWN: readonly LayerKind[] = [
  'flashTape',
  'peelPly',
  'perforatedFilm',
  'flowMesh',
  'releaseFilm',
  'lines',
  'bleeder',
  'breather',
  'doubleTape',
  'sealantTape',
  'bag',
];
/** Wetted by hand: a mesh over the breather keeps a way for the air. */
const PRESSED: readonly LayerKind[] = [
  'flashTape',
  'peelPly',
  'perforatedFilm',
  'releaseFilm',
  'bleeder',
  'breather',
  'flowMesh',
  'lines',
  'doubleTape',
  'sealantTape',
  'bag',
];

const orderOf = (process: ProcessId) => (process === 'wetLayup' || process === 'bonding' ? PRESSED : DRAWN);

/** Place of a kind in the usual order of a process. */
export const rankOf = (kind: LayerKind, process: ProcessId): number => orderOf(process).indexOf(kind);

/** The first layer that lies over one that belongs over it, with that one; null where all lie as usual. */
export function outOfOrder(
  layers: readonly JobLayer[],
  process: ProcessId,
): { layer: JobLayer; under: JobLayer } | null {
  for (const [n, layer] of layers.entries()) {
    const under = layers
      .slice(0, n)
      .find(
        (lower) => lower.side === layer.side && rankOf(lower.kind, process) > rankOf(layer.kind, process),
      );
    if (under) return { layer, under };
  }
  return null;
}

export const inOrder = (layers: readonly JobLayer[], process: ProcessId): JobLayer[] =>
  [...layers].sort((a, b) => rankOf(a.kind, process) - rankOf(b.kind, process));
