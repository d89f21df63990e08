import type { Read } from '../read.ts';
import { withBulge, type Corner } from '@wick/core/geometry/arcs';
import type { Point } from '@wick/core/geometry/polygon';
import type { DrawnPath } from '@wick/core/geometry/stitch';
import dxfParser, { type IDxf } from 'dxf-parser';
import { arcCorners, flattenEllipse, flattenSpline } from './curves.ts';
import { createSheet, refuse, TooMuchDrawn, type Drawing } from './drawing.ts';

// The package is a plain script to Node and a module to the bundler.
const DxfParser = (dxfParser as unknown as { default?: typeof dxfParser }).default ?? dxfParser;

/** $INSUNITS of the DXF reference: metres a drawing unit. */
const UNIT_LENGTHS: Record<number, number> = { 1: 0.0254, 2: 0.3048, 4: 1e-3, 5: 1e-2, 6: 1 };

/** Reads the lines, arcs, circles, polylines, ellipses and splines of an ASCII DXF. */
export function readDxf(text: string): Read<Drawing> {
  if (text.includes('\0')) return refuse('This is a binary DXF. Save it as ASCII DXF and import it again.');
  let dxf: IDxf | null;
  try {
    dxf = new DxfParser().parseSync(text);
  } catch {
    dxf = null;
  }
  if (!dxf?.entities)
    return refuse(
      'The file does not read as DXF; it may be cut off or of another kind. Save it again as ASCII DXF.',
    );
  const sheet = createSheet();
  try {
    for (const entity of dxf.entities) {
      const paths = pathsOf(entity);
      if (paths) sheet.add(String(entity.layer ?? '0'), paths);
      else sheet.skip(String(entity.type));
    }
  } catch (error) {
    if (error instanceof TooMuchDrawn) return refuse(error.message);
    throw error;
  }
  const unit = Number((dxf.header as Record<string, unknown> | undefined)?.$INSUNITS);
  return sheet.finish(UNIT_LENGTHS[unit] ?? null);
}

interface Fields {
  type: string;
  vertices?: (Point & { bulge?: number })[];
  shape?: boolean;
  center?: Point;
  radius?: number;
  startAngle?: number;
  endAngle?: number;
  majorAxisEndPoint?: Point;
  axisRatio?: number;
  controlPoints?: Point[];
  knotValues?: number[];
  degreeOfSplineCurve?: number;
  closed?: boolean;
}

/** A spline of a higher degree is none that was drawn. */
const HIGHEST_DEGREE = 10;

/** Null for what is no path, or lacks what one is drawn by. */
function pathsOf(entity: unknown): DrawnPath[] | null {
  const e = entity as Fields;
  const { center, radius, startAngle, endAngle, majorAxisEndPoint, axisRatio } = e;
  switch (e.type) {
    case 'LINE':
      return e.vertices && e.vertices.length > 1
        ? [{ corners: e.vertices.map(bare), isClosed: false }]
        : null;
    case 'LWPOLYLINE':
    case 'POLYLINE':
      return [polyline(e)];
    case 'CIRCLE':
      if (!center || radius === undefined) return null;
      return [{ corners: arcCorners(center, radius, 0, 2 * Math.PI).slice(0, 2), isClosed: true }];
    case 'ARC':
      if (!center || radius === undefined || startAngle === undefined || endAngle === undefined) return null;
      return [{ corners: arcCorners(center, radius, startAngle, endAngle), isClosed: false }];
    case 'ELLIPSE': {
      if (!center || !majorAxisEndPoint || axisRatio === undefined) return null;
      const corners = flattenEllipse({
        centre: center,
        axis: majorAxisEndPoint,
        ratio: axisRatio,
        from: startAngle ?? 0,
        to: endAngle ?? 2 * Math.PI,
      });
      const [first, last] = [corners[0]!, corners.at(-1)!];
      const isClosed =
        Math.hypot(first.x - last.x, first.y - last.y) <
        1e-9 * Math.hypot(majorAxisEndPoint.x, majorAxisEndPoint.y) + 1e-12;
      return [{ corners: isClosed ? corners.slice(0, -1) : corners, isClosed }];
    }
    case 'SPLINE': {
      const { controlPoints = [], knotValues = [], degreeOfSplineCurve: degree = 3 } = e;
      const isWhole =
        degree >= 1 &&
        degree <= HIGHEST_DEGREE &&
        controlPoints.length > degree &&
        knotValues.length > controlPoints.length;
      if (!isWhole) return null;
      return [{ corners: flattenSpline(controlPoints, knotValues, degree), isClosed: Boolean(e.closed) }];
    }
    default:
      return null;
  }
}

const bare = ({ x, y }: Point): Corner => ({ x, y });

function polyline({ vertices = [], shape }: Fields): DrawnPath {
  const corners = vertices.map((vertex) => withBulge(vertex, vertex.bulge ?? 0));
  const last = corners.at(-1);
  // The last corner of an open one leads nowhere.
  if (!shape && last) corners[corners.length - 1] = bare(last);
  return { corners, isClosed: Boolean(shape) };
}
