/** Where the nodes of a network lie on the part: nodes over one another share a place. */
export interface Footprint {
  /** Place of each node; -1 off the part. */
  readonly placeOf: Int32Array;
  /** Area of each place, m2. */
  readonly area: Float64Array;
}

/**
 * Measures dry areas, m2, by what each place has of the part, whatever it stores: bores and races count for nothing. A place is
 * as dry as the driest of its nodes.
 * @param footprint without one every area is NaN
 */
export function createAreas(footprint?: Footprint): (nodes: Iterable<number>, level: Float64Array) => number {
  if (!footprint) return () => NaN;
  const { placeOf, area } = footprint;
  const dry = new Float64Array(area.length);
  return (nodes, level) => {
    const places: number[] = [];
    for (const i of nodes) {
      const place = placeOf[i];
      if (place < 0) continue;
      if (level[i] < 1) dry[place] = Math.max(dry[place], 1 - level[i]);
      places.push(place);
    }
    let sum = 0;
    for (const place of places) {
      sum += area[place] * dry[place];
      dry[place] = 0;
    }
    return sum;
  };
}
