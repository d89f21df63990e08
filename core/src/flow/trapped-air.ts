import { cutOffGroups, type CutOffGroup } from './dry-regions.ts';
import type { createAreas } from './footprint.ts';
import type { FlowNetwork } from './network.ts';

export interface TrappedRegion {
  /** When it lost its last way to an open vent. */
  readonly time: number;
  /** Nodes with room left at that time, that room, m3, and the area it takes, m2. */
  readonly nodes: Int32Array;
  readonly volume: number;
  readonly area: number;
  /** Room and area that its gas takes at the end of the run, the absolute pressure of the gas then, Pa, and the nodes it is in. */
  readonly finalVolume: number;
  readonly finalArea: number;
  readonly finalPressure: number;
  readonly voidNodes: Int32Array;
  /** Its area after each step since; times of the run. */
  readonly history: readonly { readonly time: number; readonly area: number }[];
}

interface Region {
  readonly nodes: Int32Array;
  readonly time: number;
  readonly volume: number;
  readonly history: { time: number; area: number }[];
  /** Above the run's vacuum, Pa. */
  pressure: number;
  /** Pressures between which the step's own one lies, with how far each misses the gas law. */
  low: { pressure: number; miss: number } | null;
  high: { pressure: number; miss: number } | null;
  isOpen: boolean;
}

/** Share of p V that may be missing after a step. */
const GAS_TOLERANCE = 0.02;
const MAX_TRIES = 40;

/**
 * Gas shut in by the front: p V stays what it was when the last way to a vent closed (Boyle, constant temperature), and p
 * is the pressure the front works against there.
 * Valid: no gas dissolves or leaves with the resin; one pressure over the region. Checked by fill.test.ts.
 */
export function createTrappedAir(
  network: FlowNetwork,
  drive: { vacuumPressure: number; highest: number },
  areaOf: ReturnType<typeof createAreas>,
  isTold: (group: CutOffGroup, level: Float64Array) => boolean,
) {
  const { vacuumPressure, highest } = drive;
  const regions: Region[] = [];
  const inRegion = new Int32Array(network.nodeCount).fill(-1);
  const room = ({ nodes }: Region, level: Float64Array) => {
    let sum = 0;
    for (const i of nodes) sum += network.storage[i] * Math.max(0, 1 - level[i]);
    return sum;
  };
  /** p V over what it was, minus one. */
  const missOf = (region: Region, level: Float64Array) =>
    ((region.pressure + vacuumPressure) * room(region, level)) / (vacuumPressure * region.volume) - 1;

  return {
    /** Groups cut off for the first time. */
    newGroups: (level: Float64Array, isVent: Uint8Array) =>
      cutOffGroups(network, { fill: level, isVent }).filter(
        (group) => group.nodes.every((i) => inRegion[i] < 0) && isTold(group, level),
      ),
    add(groups: readonly { nodes: Int32Array; volume: number }[], level: Float64Array, time: number) {
      for (const { nodes, volume } of groups) {
        for (const i of nodes) inRegion[i] = regions.length;
        const history = [{ time, area: areaOf(nodes, level) }];
        regions.push({ nodes, volume, time, history, pressure: 0, low: null, high: null, isOpen: false });
      }
    },
    /** Writes the least impulse of a step into floor: gas pressure times step, 0 elsewhere. */
    setFloor(floor: Float64Array, step: number) {
      floor.fill(0);
      for (const { nodes, pressure, isOpen } of regions)
        if (!isOpen) for (const i of nodes) floor[i] = pressure * step;
    },
    startStep() {
      for (const region of regions) region.low = region.high = null;
    },
    /** After a solve: true when every gas pressure fits the room left; else better pressures are set and the step is solved again. */
    isBalanced(level: Float64Array, tries: number): boolean {
      if (tries >= MAX_TRIES || !(vacuumPressure > 0)) return true;
      let balanced = true;
      for (const region of regions) {
        if (region.isOpen) continue;
        const miss = missOf(region, level);
        if (Math.abs(miss) <= GAS_TOLERANCE) continue;
        balanced = false;
        const bound = { pressure: region.pressure, miss };
        if (miss > 0) region.high = bound;
        else region.low = bound;
        region.pressure = between(region, vacuumPressure, highest);
      }
      return balanced;
    },
    /** Notes the volumes at the end of a step; lets go of regions that a vent has reached again. */
    endStep(level: Float64Array, time: number, isVent: Uint8Array) {
      for (const region of regions) {
        region.isOpen ||= region.nodes.some((i) => isVent[i] && level[i] < 1);
        region.history.push({ time, area: areaOf(region.nodes, level) });
      }
    },
    /** Room the shut-in gas takes now, m3. */
    volume: (level: Float64Array) =>
      regions.reduce((sum, region) => sum + (region.isOpen ? 0 : room(region, level)), 0),
    /** What of it stays even at the highest pressure of the run, m3. */
    smallest: (level: Float64Array) =>
      regions.reduce((sum, region) => {
        const pressed = (1 + GAS_TOLERANCE) * region.volume * (vacuumPressure / (vacuumPressure + highest));
        return sum + (region.isOpen ? 0 : Math.min(room(region, level), pressed));
      }, 0),
    finish: (level: Float64Array): TrappedRegion[] =>
      regions.map((region) => ({
        time: region.time,
        nodes: region.nodes,
        volume: region.volume,
        area: region.history[0].area,
        history: region.history,
        finalVolume: region.isOpen ? 0 : room(region, level),
        finalArea: region.isOpen ? 0 : areaOf(region.nodes, level),
        finalPressure: region.pressure + vacuumPressure,
        voidNodes: region.nodes.filter((i) => level[i] < 1),
      })),
  };
}

/** Next pressure to try: by the gas law alone until both sides are known, then where a line through them crosses. */
function between({ low, high, pressure }: Region, vacuum: number, highest: number): number {
  if (low && high) {
    const share = Math.min(0.9, Math.max(0.1, -low.miss / (high.miss - low.miss)));
    return low.pressure + share * (high.pressure - low.pressure);
  }
  if (high) return high.pressure > 1 ? 0.5 * high.pressure : 0;
  const raised = Math.max(2 * (pressure + vacuum), vacuum * 1.5) - vacuum;
  return Math.min(raised, highest);
}
