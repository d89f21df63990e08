import type { Read } from '../read.ts';
import { withBulge, type Corner } from '@wick/core/geometry/arcs';
import type { Point } from '@wick/core/geometry/polygon';
import type { DrawnPath } from '@wick/core/geometry/stitch';
import dxfParser, { type IDxf, type IEntity } from 'dxf-parser';
import { arcCorners, flattenEllipse, flattenSpline } from './curves.ts';
import { checkedDrawing, refuse, type Drawing } from './drawing.ts';

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
  const layers = new Map<string, DrawnPath[]>();
  const skipped = new Map<string, number>();
  for (const entity of dxf.entities) {
    const paths = pathsOf(entity as IEntity & Record<string, never>);
    if (!paths) skipped.set(entity.type, (skipped.get(entity.type) ?? 0) + 1);
    else layers.set(entity.layer ?? '0', [...(layers.get(entity.layer ?? '0') ?? []), ...paths]);
  }
  const unit = Number((dxf.header as Record<string, unknown> | undefined)?.$INSUNITS);
  return checkedDrawing({
    layers: [...layers].map(([name, paths]) => ({ name, paths })),
    unitLength: UNIT_LENGTHS[unit] ?? null,
    skipped: [...skipped].map(([type, count]) => `${count} ${type}`),
  });
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

/** Null for what is no path. */
function pathsOf(entity: unknown): DrawnPath[] | null {
  const e = entity as Fields;
  switch (e.type) {
    case 'LINE':
      return [{ corners: e.vertices!.map(bare), isClosed: false }];
    case 'LWPOLYLINE':
    case 'POLYLINE':
      return [polyline(e)];
    case 'CIRCLE':
      return [{ corners: arcCorners(e.center!, e.radius!, 0, 2 * Math.PI).slice(0, 2), isClosed: true }];
    case 'ARC':
      return [{ corners: arcCorners(e.center!, e.radius!, e.startAngle!, e.endAngle!), isClosed: false }];
    case 'ELLIPSE': {
      const corners = flattenEllipse({
        centre: e.center!,
        axis: e.majorAxisEndPoint!,
        ratio: e.axisRatio!,
        from: e.startAngle!,
        to: e.endAngle!,
      });
      const [first, last] = [corners[0]!, corners.at(-1)!];
      const isClosed =
        Math.hypot(first.x - last.x, first.y - last.y) <
        1e-9 * Math.hypot(e.majorAxisEndPoint!.x, e.majorAxisEndPoint!.y) + 1e-12;
      return [{ corners: isClosed ? corners.slice(0, -1) : corners, isClosed }];
    }
    case 'SPLINE':
      if (!e.controlPoints || e.controlPoints.length <= (e.degreeOfSplineCurve ?? 3)) return null;
      return [
        {
          corners: flattenSpline(e.controlPoints, e.knotValues ?? [], e.degreeOfSplineCurve ?? 3),
          isClosed: Boolean(e.closed),
        },
      ];
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
