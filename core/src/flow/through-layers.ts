import type { Mesh } from '../geometry/mesh.ts';
import type { FillResult } from './fill-types.ts';

/** State of cure of the resin that reached each mesh node, in the layer where that is highest; NaN where it came to none. */
export function oldestThrough({ cureAtArrival }: FillResult, { nodeCount }: Mesh, layerCount: number) {
  return (
    cureAtArrival &&
    Float64Array.from({ length: nodeCount }, (_, i) => {
      const states = Array.from({ length: layerCount }, (__, l) => cureAtArrival[l * nodeCount + i]);
      return states.reduce((most, state) => (Number.isNaN(state) || most >= state ? most : state), NaN);
    })
  );
}

/** A layer dry at a node leaves the node dry. */
export function wettest(layers: readonly Float64Array[]): Float64Array {
  return layers[0].map((_, i) => layers.reduce((latest, layer) => Math.max(latest, layer[i]), 0));
}
