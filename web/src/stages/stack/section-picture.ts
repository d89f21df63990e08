import type { EdgeSection, SectionLayer } from '@wick/plan/stack/section';

/** A section as it is drawn: stretched, every layer of a height of its own, ends at their true places. Pixels, y down. */
export interface DrawnSection {
  readonly width: number;
  readonly height: number;
  x(at: number): number;
  /** Metres past the edge at a pixel. */
  at(x: number): number;
  readonly part: string;
  /** The mould where it climbs. */
  readonly stepped: string;
  readonly mould: number;
  readonly layers: readonly DrawnLayer[];
  readonly ticks: readonly number[];
}

export interface DrawnLayer extends SectionLayer {
  readonly path: string;
  /** Where its name is written: in it, or over it with a leader where it is narrow. */
  readonly label: { readonly x: number; readonly y: number; readonly isOver: boolean };
  readonly handles: readonly {
    readonly name: SectionLayer['ends'][number]['name'];
    readonly at: number;
    readonly x: number;
    readonly y: number;
  }[];
}

const HEIGHTS: Partial<Record<SectionLayer['kind'], number>> = {
  lines: 34,
  bleeder: 24,
  breather: 24,
  flowMesh: 28,
  sealantTape: 20,
};
const THIN = 19;
const PART = 58;
/** How much of the part is shown inside its edge, and of the mould beyond all layers, m. */
const INSIDE = 0.1;
const BEYOND = 0.025;
/** Height at which a step of the mould is drawn, px. */
const STEP_HEIGHT = 70;
/** Pixels in which a layer comes down over the end of another. */
const SLOPE = 7;
const ROOM = { top: 34, bottom: 44 };

export function drawSection(section: EdgeSection, width: number): DrawnSection {
  const places = section.layers.flatMap(({ from, to }) => [from, to]).filter(Number.isFinite);
  const line = section.line ? [section.line.at] : [];
  const { step } = section;
  const left = Math.min(
    -INSIDE,
    ...places.map((own) => own - BEYOND),
    ...line.map((own) => own - 2 * BEYOND),
  );
  const right = step ? INSIDE : Math.max(section.flange ?? 0, ...places, ...line) + BEYOND;
  const scale = width / (right - left);
  const x = (at: number) => (Math.max(left, Math.min(right, at)) - left) * scale;
  const heightOf = ({ kind }: SectionLayer) => HEIGHTS[kind] ?? THIN;
  const rise = step ? STEP_HEIGHT : 0;
  const height =
    ROOM.top + ROOM.bottom + PART + rise + section.layers.reduce((sum, layer) => sum + heightOf(layer), 0);
  const mould = height - ROOM.bottom;
  /** What lies at a pixel so far, over the mould. */
  const lain: { from: number; to: number; height: number }[] = [
    { from: -1e6, to: step ? 1e6 : x(0), height: PART },
    ...(step ? [{ from: x(0), to: 1e6, height: STEP_HEIGHT }] : []),
  ];
  const levelAt = (px: number, layers = lain) =>
    layers.reduce((sum, { from, to, height: own }) => sum + own * within(px, from, to), 0);
  const layers = section.layers.map((layer): DrawnLayer => {
    const from = Number.isFinite(layer.from) ? x(layer.from) : -10;
    const to = Number.isFinite(layer.to) ? x(layer.to) : width + 10;
    const own = heightOf(layer);
    const breaks = [
      from,
      to,
      ...lain.flatMap((below) => [below.to, below.to + SLOPE, below.from - SLOPE, below.from]),
    ]
      .filter((px) => px >= from && px <= to)
      .sort((a, b) => a - b);
    const lower = breaks.map((px) => ({ x: px, y: mould - levelAt(px) }));
    const upper = lower.map((p) => ({ x: p.x, y: p.y - own })).reverse();
    const path = `M${[...lower, ...upper].map((p) => `${p.x.toFixed(1)} ${p.y.toFixed(1)}`).join('L')}Z`;
    const middle = (px: number) => mould - levelAt(px) - own / 2;
    const drawn = {
      ...layer,
      path,
      label: labelOf(to - Math.max(0, from), Math.max(from, 0), middle),
      handles: layer.ends.map(({ name, at }) => ({ name, at, x: x(at), y: middle(x(at)) })),
    };
    lain.push({ from, to, height: own });
    return drawn;
  });
  return {
    ...{ width, height, x, mould, layers },
    at: (px) => left + px / scale,
    part: step
      ? `M0 ${mould - PART}H${x(0) - SLOPE}L${x(0)} ${mould - PART - rise}H${width}V${mould - rise}H${x(0)}L${x(0) - SLOPE} ${mould}H0Z`
      : `M0 ${mould - PART}H${x(0)}V${mould}H0Z`,
    stepped: `M0 ${mould}H${x(0) - SLOPE}L${x(0)} ${mould - rise}H${width}V${mould - rise + 10}H${x(0) + 4}L${x(0) - SLOPE + 4} ${mould + 10}H0Z`,
    // Half a step from either side, or a number is cut off.
    ticks: ticksBetween(left + STEP / 2, right - STEP / 2),
  };
}

/** Narrowest layer that holds its name, px. */
const HOLDS_NAME = 110;
const labelOf = (wide: number, left: number, middle: (px: number) => number): DrawnLayer['label'] =>
  wide >= HOLDS_NAME
    ? { x: left + 8, y: middle(left + 8), isOver: false }
    : { x: left + wide / 2, y: middle(left + wide / 2), isOver: true };

/** 1 under a layer, 0 beside it, and in between where it is come down over. */
function within(px: number, from: number, to: number): number {
  if (px <= from - SLOPE || px >= to + SLOPE) return 0;
  if (px < from) return (px - from + SLOPE) / SLOPE;
  return px <= to ? 1 : (to + SLOPE - px) / SLOPE;
}

/** Every 20 mm. */
const STEP = 0.02;
const ticksBetween = (from: number, to: number) =>
  Array.from(
    { length: Math.floor(to / STEP) - Math.ceil(from / STEP) + 1 },
    (_, n) => (Math.ceil(from / STEP) + n) * STEP,
  );
