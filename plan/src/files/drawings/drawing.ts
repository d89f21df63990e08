import type { Read } from '../read.ts';
import { polygonOf, ringArea, withBulge, type Corner } from '@wick/core/geometry/arcs';
import { contains, requireSimplePolygon } from '@wick/core/geometry/polygon';
import { closeChain, stitch, type DrawnPath, type Gap } from '@wick/core/geometry/stitch';
import { ModelError } from '@wick/core/model-error';

/** A drawing as it stands in a file: paths by layer, in the file's own unit. */
export interface Drawing {
  readonly layers: readonly { readonly name: string; readonly paths: readonly DrawnPath[] }[];
  /** Metres a unit of the file, where it says so. */
  readonly unitLength: number | null;
  /** What was left out: "3 TEXT". */
  readonly skipped: readonly string[];
}

/** What a layer is taken for. */
export type LayerRole = 'part' | 'zones' | 'ignored';

/** Paths to be made into a part. Millimetre, centimetre, metre, inch, foot by their length in m. */
export interface DrawingChoice {
  readonly roles: readonly LayerRole[];
  readonly unitLength: number;
  /** Ends nearer than this are joined, m. */
  readonly tolerance: number;
  /** Closes what stays open with a straight edge. */
  readonly closeGaps: boolean;
}

export interface DrawnPart {
  readonly outline: readonly Corner[] | null;
  readonly holes: readonly (readonly Corner[])[];
  readonly zones: readonly { readonly name: string; readonly outline: readonly Corner[] }[];
  readonly gaps: readonly Gap[];
  /** Chains that do not close, where they lie in the drawing. */
  readonly open: readonly (readonly Corner[])[];
  /** Rings beside the largest one. */
  readonly beside: number;
}

export const MAX_DRAWING_BYTES = 8_000_000;
const MAX_CORNERS = 30_000;
const MAX_PATHS = 3000;
const MAX_LAYERS = 100;
const LONGEST_NAME = 60;

/** More is drawn than can be read; the message says how much. */
export class TooMuchDrawn extends Error {}

export interface Sheet {
  /** @throws TooMuchDrawn as soon as it is too much */
  add(layer: string, paths: readonly DrawnPath[]): void;
  skip(type: string): void;
  finish(unitLength: number | null): Read<Drawing>;
}

/** Takes a drawing up path by path, in the order of its layers, until there is too much of it. */
export function createSheet(): Sheet {
  const layers = new Map<string, DrawnPath[]>();
  const skipped = new Map<string, number>();
  let [pathCount, cornerCount] = [0, 0];
  return {
    add(layer, paths) {
      const name = layer.slice(0, LONGEST_NAME);
      const own = layers.get(name) ?? [];
      layers.set(name, own);
      for (const path of paths) {
        own.push(path);
        pathCount += 1;
        cornerCount += path.corners.length;
      }
      if (pathCount > MAX_PATHS || cornerCount > MAX_CORNERS || layers.size > MAX_LAYERS)
        throw new TooMuchDrawn(
          `The drawing has more than ${MAX_PATHS} paths, ${MAX_CORNERS} points or ${MAX_LAYERS} layers, which is more than can be read. Save only the part’s outline.`,
        );
    },
    skip: (type) => void skipped.set(type, (skipped.get(type) ?? 0) + 1),
    finish: (unitLength) =>
      checkedDrawing({
        layers: [...layers].map(([name, paths]) => ({ name, paths })),
        unitLength,
        skipped: [...skipped].slice(0, MOST_SKIPPED).map(([type, count]) => `${count} ${type.slice(0, 40)}`),
      }),
  };
}
const MOST_SKIPPED = 20;

/** Faults that any drawing may have, whatever its format. */
function checkedDrawing(drawing: Drawing): Read<Drawing> {
  const paths = drawing.layers.flatMap((layer) => layer.paths);
  if (paths.length === 0)
    return refuse(
      `There is no outline in the drawing${drawing.skipped.length > 0 ? ` (left out: ${drawing.skipped.join(', ')})` : ''}. Draw it with lines, arcs, polylines or paths and save again.`,
    );
  const isSound = ({ x, y, bulge }: Corner) =>
    [x, y, bulge ?? 0].every((value) => Number.isFinite(value) && Math.abs(value) < 1e7);
  const broken = drawing.layers.find((layer) => !layer.paths.every((path) => path.corners.every(isSound)));
  if (broken)
    return refuse(
      `Layer “${broken.name}” holds a position that is no usable number. Open the drawing where it was made, mend it and save again.`,
    );
  return { ok: true, value: drawing };
}

/** As a reader's answer. */
export function refuse(message: string): { ok: false; code: 'BAD_DRAWING'; message: string } {
  return { ok: false, code: 'BAD_DRAWING', message };
}

/** What a layer is most likely for, by its name as layouts are written here. */
export function likelyRole(name: string): LayerRole {
  if (/^zone/i.test(name)) return 'zones';
  return /^(feed|vent|race|mark|rise|step|inside corner|flange|dimension)/i.test(name) ? 'ignored' : 'part';
}

/**
 * The part in a drawing: the largest ring is the outline, rings inside it are holes. Moved so that its lower left corner
 * lies at the origin.
 */
export function partOfDrawing(drawing: Drawing, choice: DrawingChoice): Read<DrawnPart> {
  const layersOf = (role: LayerRole) => drawing.layers.filter((_, n) => choice.roles[n] === role);
  const scaled = (path: DrawnPath): DrawnPath => ({
    ...path,
    corners: path.corners.map(({ x, y, bulge }) =>
      withBulge({ x: x * choice.unitLength, y: y * choice.unitLength }, bulge ?? 0),
    ),
  });
  const read = (paths: readonly DrawnPath[]) => {
    const { rings, open } = stitch(paths.map(scaled), choice.tolerance);
    const closed = choice.closeGaps
      ? open.filter(({ corners }) => corners.length > 2).map(({ corners }) => closeChain(corners))
      : [];
    return {
      rings: [...rings, ...closed],
      open: choice.closeGaps ? [] : open,
    };
  };
  const part = read(layersOf('part').flatMap((layer) => layer.paths));
  const zones = layersOf('zones').map((layer) => ({ name: layer.name, ...read(layer.paths) }));
  const bySize = [...part.rings].sort((a, b) => Math.abs(ringArea(b)) - Math.abs(ringArea(a)));
  const [outline, ...others] = bySize;
  const stillOpen = [...part.open, ...zones.flatMap((zone) => zone.open)];
  const loose = { gaps: stillOpen.map(({ gap }) => gap), open: stillOpen.map(({ corners }) => corners) };
  if (!outline) return { ok: true, value: { outline: null, holes: [], zones: [], ...loose, beside: 0 } };
  const polygon = polygonOf(outline);
  const inside = others.filter((ring) => contains(polygon, polygonOf(ring)[0]!));
  try {
    requireSimplePolygon(polygon, 'The outline');
    inside.forEach((hole, i) => requireSimplePolygon(polygonOf(hole), `Hole ${i + 1}`));
  } catch (error) {
    if (error instanceof ModelError) return refuse(error.message);
    throw error;
  }
  const corner = {
    x: Math.min(...polygon.map(({ x }) => x)),
    y: Math.min(...polygon.map(({ y }) => y)),
  };
  const home = (ring: readonly Corner[]) =>
    ring.map((p) => withBulge({ x: p.x - corner.x, y: p.y - corner.y }, p.bulge ?? 0));
  return {
    ok: true,
    value: {
      outline: home(outline),
      holes: inside.map(home),
      zones: zones.flatMap(({ name, rings }) =>
        rings.map((ring, i) => ({
          name: `${name.replace(/^zone\s*/i, '') || 'Zone'}${rings.length > 1 ? ` ${i + 1}` : ''}`.slice(
            0,
            40,
          ),
          outline: home(ring),
        })),
      ),
      ...loose,
      beside: others.length - inside.length,
    },
  };
}
