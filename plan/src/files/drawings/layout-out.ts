import { arcOf, polygonOf, ringBounds, type Corner } from '@wick/core/geometry/arcs';
import { offset } from '@wick/core/geometry/overlay';
import type { Point } from '@wick/core/geometry/polygon';
import { Colors, LWPolylineFlags, Units, DxfWriter, point3d } from '@tarikjabiri/dxf';
import type { LaidJob } from '../../job/laid.ts';
import { partPatch } from '../../part/patch.ts';

/** One drawn thing of a layout, in metres. */
interface Drawn {
  readonly layer: string;
  readonly corners: readonly Corner[];
  readonly isClosed: boolean;
}

const featureLayers = { rise: 'Rise', step: 'Step', insideCorner: 'Inside corner' } as const;
const lineLayers = { feed: 'Feed', vent: 'Vent', race: 'Race' } as const;

/** All of a layout for a plotter: outline, holes, zones, flange, features, lines; marks as small crosses. */
function drawnOf(job: LaidJob): Drawn[] {
  const { part, zones, lines, marks } = job;
  const ring = (layer: string, corners: readonly Corner[]): Drawn => ({ layer, corners, isClosed: true });
  const open = (layer: string, corners: readonly Corner[]): Drawn => ({ layer, corners, isClosed: false });
  const size = 0.01;
  return [
    ring('Outline', part.outline),
    ...part.holes.map((hole) => ring('Holes', hole.outline)),
    ...zones.map((zone) => ring(`Zone ${zone.name}`, zone.outline)),
    ...(part.flange
      ? offset([{ ...partPatch(part), holes: [] }], part.flange).map(({ outline }) => ring('Flange', outline))
      : []),
    ...part.features.map(({ kind, points }) => open(featureLayers[kind], points)),
    ...lines.map(({ kind, points }) =>
      points.length > 1 ? open(lineLayers[kind], points) : ring(lineLayers[kind], crossOf(points[0]!, size)),
    ),
    ...marks.map((mark) => ring('Marks', crossOf(mark, size))),
  ];
}

/** A small diamond round a point. */
function crossOf({ x, y }: Point, r: number): Point[] {
  return [
    { x: x + r, y },
    { x, y: y + r },
    { x: x - r, y },
    { x, y: y - r },
  ];
}

const layerColours: Record<string, number> = {
  Outline: Colors.White,
  Holes: Colors.White,
  Feed: Colors.Yellow,
  Vent: Colors.Cyan,
  Race: Colors.Red,
  Marks: Colors.Red,
};
/** Letters that a DXF layer name may not hold. */
const layerName = (name: string) => name.replace(/[<>/\\":;?*|=,`]/g, '-').slice(0, 60);

/** ASCII DXF in millimetres, a layer for each kind of thing; arcs stay arcs. */
export function layoutDxf(job: LaidJob): string {
  const writer = new DxfWriter();
  writer.setUnits(Units.Millimeters);
  const drawn = drawnOf(job);
  for (const layer of new Set(drawn.map((item) => layerName(item.layer))))
    writer.addLayer(layer, layerColours[layer] ?? Colors.Green, 'Continuous');
  for (const { layer, corners, isClosed } of drawn)
    writer.addLWPolyline(
      corners.map(({ x, y, bulge }) => ({ point: point3d(mm(x), mm(y)), ...(bulge ? { bulge } : {}) })),
      { layerName: layerName(layer), ...(isClosed ? { flags: LWPolylineFlags.Closed } : {}) },
    );
  return writer.stringify();
}

const mm = (length: number) => Math.round(length * 1e7) / 1e4;

const strokes: Record<string, string> = {
  Feed: '#c77700',
  Vent: '#1f6f78',
  Race: '#b3261e',
  Marks: '#b3261e',
};

/** SVG at full size, in millimetres; each layer a group with its name as id. */
export function layoutSvg(job: LaidJob): string {
  const drawn = drawnOf(job);
  const boxes = drawn.map(({ corners, isClosed }) =>
    ringBounds(isClosed ? corners : corners.map(({ x, y }) => ({ x, y }))),
  );
  const margin = 0.01;
  const left = Math.min(...boxes.map((box) => box.minX)) - margin;
  const right = Math.max(...boxes.map((box) => box.maxX)) + margin;
  const low = Math.min(...boxes.map((box) => box.minY)) - margin;
  const high = Math.max(...boxes.map((box) => box.maxY)) + margin;
  const layers = [...new Set(drawn.map((item) => item.layer))];
  const groups = layers.map((layer) => {
    const paths = drawn
      .filter((item) => item.layer === layer)
      .map((item) => `    <path d="${svgPath(item)}"/>`);
    return `  <g id="${escaped(layer)}" stroke="${strokes[layer] ?? '#1e2a2f'}">\n${paths.join('\n')}\n  </g>`;
  });
  return `<?xml version="1.0" encoding="UTF-8"?>
<svg xmlns="http://www.w3.org/2000/svg" width="${mm(right - left)}mm" height="${mm(high - low)}mm" viewBox="${mm(left)} ${mm(-high)} ${mm(right - left)} ${mm(high - low)}" fill="none" stroke-width="0.5">
  <title>${escaped(job.name)}</title>
${groups.join('\n')}
</svg>
`;
}

function svgPath({ corners, isClosed }: Drawn): string {
  const put = ({ x, y }: Point) => `${mm(x)} ${mm(-y)}`;
  const steps = corners.map((corner, i) => {
    const from = corners[i - 1];
    return from ? edge(from, corner, put) : `M${put(corner)}`;
  });
  const last = corners.at(-1)!;
  return steps.join('') + (isClosed ? `${last.bulge ? edge(last, corners[0]!, put) : ''}Z` : '');
}

function edge(from: Corner, to: Point, put: (p: Point) => string): string {
  const arc = arcOf(from, to);
  if (!arc) return `L${put(to)}`;
  const isLarge = Math.abs(arc.sweep) > Math.PI ? 1 : 0;
  return `A${mm(arc.radius)} ${mm(arc.radius)} 0 ${isLarge} ${arc.sweep > 0 ? 0 : 1} ${put(to)}`;
}

const escaped = (text: string) =>
  text.replace(/[&<>"]/g, (letter) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[letter]!);

/** Outline, holes and zones as a GeoJSON feature collection in metres; arcs as chords. */
export function layoutGeoJson(job: LaidJob): string {
  const ring = (corners: readonly Corner[]) => {
    const points = polygonOf(corners).map(({ x, y }) => [x, y]);
    return [...points, points[0]!];
  };
  const feature = (layer: string, rings: readonly (readonly Corner[])[]) => ({
    type: 'Feature',
    properties: { layer },
    geometry: { type: 'Polygon', coordinates: rings.map(ring) },
  });
  return JSON.stringify({
    type: 'FeatureCollection',
    features: [
      feature('Outline', [job.part.outline, ...job.part.holes.map((hole) => hole.outline)]),
      ...job.zones.map((zone) => feature(`Zone ${zone.name}`, [zone.outline])),
    ],
  });
}
