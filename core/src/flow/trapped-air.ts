import { cutOffGroups, type CutOffGroup } from './dry-regions.ts';
import type { createAreas } from './footprint.ts';
import { askOf, holdGas, missOf, type GasStep, type HeldGas } from './held-gas.ts';
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
  /** The try before this one. */
  last: { pressure: number; room: number };
  /** While it is pressed as far as it goes. */
  held: HeldGas | null;
  /** It takes more room in this step than its nodes have. */
  isReleased: boolean;
  isOpen: boolean;
}

/** Share of p V that may be missing after a step. */
const GAS_TOLERANCE = 0.02;
/** A pressure that has not been found after so many tries is that of the resin around it, and the gas is held. */
const FREE_TRIES = 3;
/** Largest change of a pressure from one try to the next, as a factor. */
const STRIDE = 2;

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
  const isHeld = new Uint8Array(network.nodeCount);
  const hold = (region: Region, level: Float64Array) => {
    const { nodes, volume } = region;
    region.held = holdGas(network, { nodes, level, content: vacuumPressure * volume });
    for (const i of region.held.nodes) isHeld[i] = 1;
  };

  const release = (region: Region) => {
    for (const i of region.held!.nodes) isHeld[i] = 0;
    region.held = null;
    region.isReleased = true;
  };

  /** Sets a better pressure where the one tried does not fit the room left. */
  function fits(region: Region, level: Float64Array): boolean {
    const left = room(region, level);
    const wanted = vacuumPressure * region.volume;
    const own = region.pressure + vacuumPressure;
    if (Math.abs((own * left) / wanted - 1) <= GAS_TOLERANCE) return true;
    const next = Math.min(own * STRIDE, Math.max(own / STRIDE, crossing(region, { left, wanted, own })));
    region.last = { pressure: region.pressure, room: left };
    region.pressure = Math.min(highest, Math.max(0, next - vacuumPressure));
    return false;
  }

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
        const last = { pressure: highest, room: volume };
        regions.push({
          nodes,
          volume,
          time,
          history,
          pressure: 0,
          last,
          held: null,
          isReleased: false,
          isOpen: false,
        });
      }
    },
    /** 1 on nodes whose gas is held: they give way to pressure, and do not fill. */
    isHeld,
    /** Before the tries of a step, with the level it starts from. */
    startStep(level: Float64Array) {
      isHeld.fill(0);
      for (const region of regions) {
        region.last = { pressure: highest, room: room(region, level) };
        region.isReleased = false;
        if (region.held && !region.isOpen) hold(region, level);
      }
    },
    /** Writes what the gas asks of the next try. */
    ask(asked: GasStep) {
      asked.floor.fill(0);
      for (const { nodes, pressure, held, isOpen } of regions)
        if (!isOpen && held) askOf(held, vacuumPressure, asked);
        else if (!isOpen) for (const i of nodes) asked.floor[i] = pressure * asked.step;
    },
    /** After a solve: true when every gas pressure fits the room left; else better pressures are set for another. */
    isBalanced(
      before: Float64Array,
      solved: { level: Float64Array; impulse: Float64Array; step: number },
      tries: number,
    ) {
      if (!(vacuumPressure > 0)) return true;
      let isBalanced = true;
      for (const region of regions) {
        if (region.isOpen) continue;
        if (region.held) {
          const miss = missOf(network, region.held, { ...solved, vacuum: vacuumPressure });
          if (miss === Infinity) release(region);
          isBalanced &&= miss <= GAS_TOLERANCE;
        } else if (!fits(region, solved.level)) {
          isBalanced = false;
          if (tries >= FREE_TRIES && !region.isReleased) hold(region, before);
        }
      }
      return isBalanced;
    },
    /** Notes the volumes at the end of a step; lets go of regions that a vent has reached again. */
    endStep(level: Float64Array, time: number, isVent: Uint8Array) {
      for (const region of regions) {
        region.isOpen ||= region.nodes.some((i) => isVent[i] && level[i] < 1);
        region.history.push({ time, area: areaOf(region.nodes, level) });
        const left = room(region, level);
        if (region.held && left > 0)
          region.pressure = (vacuumPressure * region.volume) / left - vacuumPressure;
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

/**
 * Where Boyle's law meets the room as a straight line of the pressure through the last two tries. At the highest pressure
 * nothing comes in, which serves as the first. Pa absolute.
 */
function crossing(
  { pressure, last }: Region,
  { left, wanted, own }: { left: number; wanted: number; own: number },
): number {
  const slope = last.pressure === pressure ? 0 : Math.max(0, (last.room - left) / (last.pressure - pressure));
  const base = left - slope * own;
  const root = Math.sqrt(base ** 2 + 4 * slope * wanted);
  if (base > 0) return (2 * wanted) / (base + root);
  return slope > 0 ? (root - base) / (2 * slope) : Infinity;
}
