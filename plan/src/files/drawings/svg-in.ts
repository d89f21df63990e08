import type { Read } from '../read.ts';
import { withBulge, type Corner } from '@wick/core/geometry/arcs';
import type { DrawnPath } from '@wick/core/geometry/stitch';
import { XMLParser, XMLValidator } from 'fast-xml-parser';
import svgpath from 'svgpath';
import { flattenCubic } from './curves.ts';
import { createSheet, refuse, TooMuchDrawn, type Drawing, type Sheet } from './drawing.ts';

/** fast-xml-parser's ordered form: one key naming the element, its children, and its attributes under ":@". */
type Node = Record<string, unknown> & { ':@'?: Record<string, string> };

const PIXEL = 0.0254 / 96;
const UNIT_LENGTHS: Record<string, number> = {
  mm: 1e-3,
  cm: 1e-2,
  in: 0.0254,
  pt: 0.0254 / 72,
  pc: 0.0254 / 6,
  px: PIXEL,
  '': PIXEL,
};
const MOST_DEPTH = 60;
const UNSEEN = new Set([
  'defs',
  'clipPath',
  'mask',
  'symbol',
  'marker',
  'pattern',
  'metadata',
  'style',
  'title',
  'desc',
]);

/** Reads the shapes of an SVG; groups with an id are its layers, y is turned to point up. */
export function readSvg(text: string): Read<Drawing> {
  if (/<!(DOCTYPE[^>[]{0,500}\[|ENTITY)/i.test(text))
    return refuse(
      'The SVG declares entities of its own, which are not read. Save it as plain SVG and import it again.',
    );
  if (XMLValidator.validate(text) !== true || !/<svg[\s>]/.test(text))
    return refuse(
      'The file does not read as SVG; it may be cut off or of another kind. Save it again as plain SVG.',
    );
  let nodes: Node[];
  try {
    nodes = new XMLParser({
      preserveOrder: true,
      ignoreAttributes: false,
      attributeNamePrefix: '',
      processEntities: false,
    }).parse(text) as Node[];
  } catch {
    return refuse(
      'The SVG is nested or written in a way that is not read. Save it as plain SVG and import it again.',
    );
  }
  const root = nodes.find((node) => 'svg' in node);
  if (!root) return refuse('The SVG has no drawing in it. Save it as plain SVG and import it again.');
  const sheet = createSheet();
  try {
    walk(root, { layer: 'drawing', transforms: [], depth: 0 }, sheet);
  } catch (error) {
    if (error instanceof TooMuchDrawn) return refuse(error.message);
    if (error instanceof TooDeep)
      return refuse(`The SVG nests its groups more than ${MOST_DEPTH} deep. Ungroup it and import it again.`);
    throw error;
  }
  return sheet.finish(unitLengthOf(root[':@'] ?? {}));
}

class TooDeep extends Error {}

interface Place {
  readonly layer: string;
  readonly transforms: readonly string[];
  readonly depth: number;
}

function walk(node: Node, place: Place, sheet: Sheet): void {
  if (place.depth > MOST_DEPTH) throw new TooDeep();
  const name = Object.keys(node).find((key) => key !== ':@')!;
  if (UNSEEN.has(name) || name.startsWith('#') || name.startsWith('?')) return;
  const attributes = node[':@'] ?? {};
  const transforms = attributes.transform ? [attributes.transform, ...place.transforms] : place.transforms;
  if (name === 'svg' || name === 'g') {
    const layer = name === 'g' && attributes.id ? attributes.id : place.layer;
    for (const child of node[name] as Node[])
      walk(child, { layer, transforms, depth: place.depth + 1 }, sheet);
    return;
  }
  const path = outlineOf(name, attributes);
  if (path === null) {
    sheet.skip(name);
    return;
  }
  const moved = transforms.reduce((d, transform) => d.transform(transform), svgpath(path));
  sheet.add(place.layer, pathsOf(moved));
}

/** Path data of a basic shape; null for what is none. */
function outlineOf(name: string, a: Record<string, string>): string | null {
  const number = (key: string) => Number.parseFloat(a[key] ?? '0');
  switch (name) {
    case 'path':
      return a.d ?? '';
    case 'polygon':
      return `M${a.points ?? ''}Z`;
    case 'polyline':
      return `M${a.points ?? ''}`;
    case 'line':
      return `M${number('x1')} ${number('y1')}L${number('x2')} ${number('y2')}`;
    case 'circle':
      return round(number('cx'), number('cy'), number('r'), number('r'));
    case 'ellipse':
      return round(number('cx'), number('cy'), number('rx'), number('ry'));
    case 'rect': {
      const [x, y, w, h] = [number('x'), number('y'), number('width'), number('height')];
      const rx = Math.min(w / 2, number('rx') || number('ry'));
      const ry = Math.min(h / 2, number('ry') || number('rx'));
      if (!(rx > 0 && ry > 0)) return `M${x} ${y}h${w}v${h}h${-w}Z`;
      const turn = (dx: number, dy: number) => `a${rx} ${ry} 0 0 1 ${dx} ${dy}`;
      return `M${x + rx} ${y}h${w - 2 * rx}${turn(rx, ry)}v${h - 2 * ry}${turn(-rx, ry)}h${2 * rx - w}${turn(-rx, -ry)}v${2 * ry - h}${turn(rx, -ry)}Z`;
    }
    default:
      return null;
  }
}

const round = (cx: number, cy: number, rx: number, ry: number) =>
  `M${cx - rx} ${cy}A${rx} ${ry} 0 1 1 ${cx + rx} ${cy}A${rx} ${ry} 0 1 1 ${cx - rx} ${cy}Z`;

function pathsOf(path: ReturnType<typeof svgpath>): DrawnPath[] {
  const paths: DrawnPath[] = [];
  let corners: Corner[] = [];
  const finish = (isClosed: boolean) => {
    if (corners.length > 1) paths.push({ corners, isClosed });
    corners = [];
  };
  // Arcs of circles stay arcs; the others become cubics.
  const plain = path.abs().unshort();
  let hasEllipse = false;
  plain.iterate((segment) => {
    if (segment[0] === 'A' && !isCircular(segment)) hasEllipse = true;
  });
  (hasEllipse ? plain.unarc() : plain).iterate((segment, _, x, y) => {
    const [command, ...raw] = segment as [string, ...number[]];
    const values = raw as number[];
    const up = (px: number, py: number): Corner => ({ x: px, y: -py });
    const here = up(x, y);
    switch (command) {
      case 'M':
        finish(false);
        corners = [up(values[0]!, values[1]!)];
        break;
      case 'Z':
        finish(true);
        break;
      case 'H':
        corners.push(up(values[0]!, y));
        break;
      case 'V':
        corners.push(up(x, values[0]!));
        break;
      case 'L':
        corners.push(up(values[0]!, values[1]!));
        break;
      case 'C':
        corners.push(
          ...flattenCubic(
            here,
            up(values[0]!, values[1]!),
            up(values[2]!, values[3]!),
            up(values[4]!, values[5]!),
          ),
        );
        break;
      case 'Q': {
        const [c, d] = [up(values[0]!, values[1]!), up(values[2]!, values[3]!)];
        const toward = (p: Corner) => ({ x: p.x + (2 / 3) * (c.x - p.x), y: p.y + (2 / 3) * (c.y - p.y) });
        corners.push(...flattenCubic(here, toward(here), toward(d), d));
        break;
      }
      case 'A': {
        const end = up(values[5]!, values[6]!);
        const chord = Math.hypot(end.x - here.x, end.y - here.y);
        const half = Math.asin(Math.min(1, chord / (2 * values[0]!)));
        const sweep = values[3] ? 2 * Math.PI - 2 * half : 2 * half;
        // Drawn clockwise on the screen, where y points down.
        const bulge = Math.tan(sweep / 4) * (values[4] ? -1 : 1);
        const start = corners.pop();
        if (start) corners.push(withBulge(start, bulge), end);
        break;
      }
    }
  });
  finish(false);
  // A path that comes back to its start is closed, whether it says so or not.
  return paths.map((p) => {
    const [first, last] = [p.corners[0]!, p.corners.at(-1)!];
    const meets = p.corners.length > 2 && Math.hypot(first.x - last.x, first.y - last.y) < 1e-9;
    return meets ? { corners: p.corners.slice(0, -1), isClosed: true } : p;
  });
}

function isCircular([, rx, ry]: unknown[]): boolean {
  return Math.abs(Number(rx) - Number(ry)) <= 1e-6 * Math.abs(Number(rx));
}

/** From the printed width and the view box; a pixel is 1/96 inch (SVG 2, CSS Values). */
function unitLengthOf({ width, viewBox }: Record<string, string>): number | null {
  const match = /^\s*([\d.eE+-]+)\s*([a-z]*)\s*$/.exec(width ?? '');
  const box = viewBox
    ?.trim()
    .split(/[\s,]+/)
    .map(Number);
  if (!match) return box ? null : PIXEL;
  const unit = UNIT_LENGTHS[match[2]!];
  if (unit === undefined) return null;
  const length = Number(match[1]) * unit;
  return box && box[2]! > 0 ? length / box[2]! : unit;
}
