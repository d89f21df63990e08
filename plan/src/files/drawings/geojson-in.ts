import type { Read } from '../read.ts';
import type { DrawnPath } from '@wick/core/geometry/stitch';
import { z } from 'zod';
import { readJson } from '../json.ts';
import { createSheet, refuse, TooMuchDrawn, type Drawing } from './drawing.ts';

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
  const raw = readJson(text);
  if (!raw.ok) return refuse(raw.message);
  const parsed = fileSchema.safeParse(raw.value);
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
  const sheet = createSheet();
  try {
    for (const { properties, geometry: shape } of features) {
      if (!shape) continue;
      const given = properties?.layer ?? properties?.name;
      const name = typeof given === 'string' && given !== '' ? given.slice(0, 60) : 'drawing';
      if (shape.type === 'Point' || shape.type === 'MultiPoint') sheet.skip('points');
      else sheet.add(name, pathsOf(shape));
    }
  } catch (error) {
    if (error instanceof TooMuchDrawn) return refuse(error.message);
    throw error;
  }
  return sheet.finish(null);
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
