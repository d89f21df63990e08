/** What has been drawn from a pot, kg, at rising times, s; 0 before the first and level after the last. */
export interface Drawn {
  readonly times: ArrayLike<number>;
  readonly masses: ArrayLike<number>;
}

/** Resin that is poured into the pot at a time. */
export interface Pour {
  readonly time: number;
  readonly mass: number;
}

export interface DrawDown {
  /** Resin in the pot, kg, as a line; a pour is two points at one time. What the pot does not hold counts below 0. */
  readonly line: readonly { readonly time: number; readonly mass: number }[];
  /** The least that is in it while it is being drawn from. */
  readonly least: { readonly time: number; readonly mass: number };
  /** When it first falls below the floor, s; null where it does not. */
  readonly dryAt: number | null;
  /** The most that is in it. */
  readonly most: { readonly time: number; readonly mass: number };
  readonly left: number;
}

/** Times nearer to one another than this are one, s. */
export const AT_ONCE = 1e-3;

/** Drawn by a time, kg. */
export function drawnAt({ times, masses }: Drawn, time: number): number {
  const last = times.length - 1;
  if (last < 0 || time < times[0]) return 0;
  if (time >= times[last]) return masses[last];
  let [low, high] = [0, last];
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (times[middle] <= time) low = middle;
    else high = middle;
  }
  const share = (time - times[low]) / (times[high] - times[low]);
  return masses[low] + share * (masses[high] - masses[low]);
}

/** When so much has been drawn, s; Infinity where it never is. */
export function timeDrawn({ times, masses }: Drawn, mass: number): number {
  const last = times.length - 1;
  if (last < 0 || !(masses[last] >= mass)) return Infinity;
  if (masses[0] >= mass) return times[0];
  let [low, high] = [0, last];
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (masses[middle] < mass) low = middle;
    else high = middle;
  }
  const share = (mass - masses[low]) / (masses[high] - masses[low]);
  return times[low] + share * (times[high] - times[low]);
}

/**
 * Resin in a pot over time: what has been poured in less what has been drawn.
 * @param floor kg that keep the hose's end covered
 * Arithmetic; checked by draw-down.test.ts against a strip's closed form.
 */
export function drawDown(drawn: Drawn, pours: readonly Pour[], floor: number): DrawDown {
  const { times, masses } = drawn;
  const inOrder = [...pours].sort((a, b) => a.time - b.time);
  const line: { time: number; mass: number }[] = [];
  let poured = 0;
  let next = 0;
  const pour = (until: number) => {
    for (; next < inOrder.length && inOrder[next].time <= until; next++) {
      const { time, mass } = inOrder[next];
      const out = drawnAt(drawn, time);
      line.push({ time, mass: poured - out }, { time, mass: poured + mass - out });
      poured += mass;
    }
  };
  for (let i = 0; i < times.length; i++) {
    pour(times[i]);
    line.push({ time: times[i], mass: poured - masses[i] });
  }
  pour(Infinity);
  // What is poured in as the draw begins counts as being in.
  const begun =
    times.length > 0 ? line.slice(line.findLastIndex(({ time }) => time <= times[0] + AT_ONCE)) : [];
  const nothing = { time: 0, mass: 0 };
  const least = begun.reduce((a, b) => (b.mass < a.mass ? b : a), begun[0] ?? nothing);
  const most = line.reduce((a, b) => (b.mass > a.mass ? b : a), line[0] ?? nothing);
  const left = line.length > 0 ? line[line.length - 1].mass : 0;
  return { line, least, dryAt: firstBelow(begun, floor), most, left };
}

/** Rounding of sums, as a share of what is in the pot. */
const ROUNDING = 1e-9;

function firstBelow(line: DrawDown['line'], floor: number): number | null {
  const slack = ROUNDING * (1 + Math.abs(floor));
  for (let i = 0; i < line.length; i++) {
    if (!(line[i].mass < floor - slack)) continue;
    if (i === 0 || line[i - 1].mass <= floor || line[i].time === line[i - 1].time) return line[i].time;
    const share = (line[i - 1].mass - floor) / (line[i - 1].mass - line[i].mass);
    return line[i - 1].time + share * (line[i].time - line[i - 1].time);
  }
  return null;
}
