import type { Read } from '../read.ts';
import type { DrawnPath } from '@wick/core/geometry/stitch';
import { z } from 'zod';
import { checkedDrawing, refuse, type Drawing } from './drawing.ts';

const position = z.array(z.number()).min(2).max(4);
const geometry: z.ZodType<Geometry> = z.lazy(() =>
  z.discriminatedUnion('type', [
    z.object({ type: z.literal('Polygon'), coordinates: z.array(z.array(position)) }),
    z.object({ type: z.literal('MultiPolygon'), coordinates: z.array(z.array(z.array(position))) }),
    z.object({ type: z.literal('LineString'), coordinates: z.array(position) }),
    z.object({ type: z.literal('MultiLineString'), coordinates: z.array(z.array(position)) }),
    z.object({ type: z.literal('Point'), coordinates: position }),
    z.object({ type: z.literal('MultiPoint'), coordinates: z.array(position) }),
  ]),
);
type Geometry =
  | { type: 'Polygon' | 'MultiLineString'; coordinates: number[][][] }
  | { type: 'MultiPolygon'; coordinates: number[][][][] }
  | { type: 'LineString' | 'MultiPoint'; coordinates: number[][] }
  | { type: 'Point'; coordinates: number[] };
const feature = z.object({
  type: z.literal('Feature'),
  properties: z.record(z.string(), z.unknown()).nullish(),
  geometry: geometry.nullable(),
});
const fileSchema = z.union([
  z.object({ type: z.literal('FeatureCollection'), features: z.array(feature) }),
  feature,
  geometry,
]);

/** Reads polygons and lines of a GeoJSON (RFC 7946) drawn in plan coordinates; a feature's "layer" or "name" names its layer. */
export function readGeoJson(text: string): Read<Drawing> {
  let raw: unknown;
  try {
    raw = JSON.parse(text.replace(/^\uFEFF/, ''));
  } catch {
    return refuse('The file is not complete JSON; it may have been cut off. Export it again.');
  }
  const parsed = fileSchema.safeParse(raw);
  if (!parsed.success)
    return refuse(
      'The file is JSON, but no GeoJSON with polygons or lines. Export the outline as a GeoJSON polygon.',
    );
  const file = parsed.data;
  const features =
    file.type === 'FeatureCollection'
      ? file.features
      : file.type === 'Feature'
        ? [file]
        : [{ properties: null, geometry: file }];
  const layers = new Map<string, DrawnPath[]>();
  let points = 0;
  for (const { properties, geometry: shape } of features) {
    if (!shape) continue;
    if (shape.type === 'Point' || shape.type === 'MultiPoint') {
      points += 1;
      continue;
    }
    const given = properties?.layer ?? properties?.name;
    const name = typeof given === 'string' && given !== '' ? given.slice(0, 60) : 'drawing';
    layers.set(name, [...(layers.get(name) ?? []), ...pathsOf(shape)]);
  }
  return checkedDrawing({
    layers: [...layers].map(([name, paths]) => ({ name, paths })),
    unitLength: null,
    skipped: points > 0 ? [`${points} points`] : [],
  });
}

function pathsOf(shape: Geometry): DrawnPath[] {
  const line = (positions: number[][], isClosed: boolean): DrawnPath => {
    const corners = positions.map(([x, y]) => ({ x: x!, y: y! }));
    return { corners: isClosed ? corners.slice(0, -1) : corners, isClosed };
  };
  switch (shape.type) {
    case 'Polygon':
      return shape.coordinates.map((ring) => line(ring, true));
    case 'MultiPolygon':
      return shape.coordinates.flat().map((ring) => line(ring, true));
    case 'LineString':
      return [line(shape.coordinates, false)];
    case 'MultiLineString':
      return shape.coordinates.map((part) => line(part, false));
    default:
      return [];
  }
}
