import type { JobLine } from '@wick/contract/job/job';
import type { JobLayer, LayerKind } from '@wick/contract/job/stack';
import { between, nearestOnLine } from '@wick/core/geometry/along';
import { polygonOf } from '@wick/core/geometry/arcs';
import { contains, distance, type Point } from '@wick/core/geometry/polygon';
import { roomAt, type PartShape } from '@wick/core/layouts/frame';
import type { Edit } from '../job/edits.ts';
import type { LaidJob } from '../job/laid.ts';
import { materialOf } from '../job/material-of.ts';
import { partShapeOf } from '../layout/fit.ts';
import { middleOfLine, ofKind } from '../layout/lines.ts';
import { withCovers } from './edits.ts';
import { layerWord } from './kinds.ts';
import { isLeftOff } from './laid-on.ts';

/** Where the part is cut: at its edge where nothing else ends a layer, at a feed along it, or at a vent; or over a rise or step of the mould. */
export type SectionPlace = 'edge' | 'feed' | 'vent' | 'step';

/** The end of a layer that can be drawn to another place. */
export type EndName = 'edge' | 'feed' | 'vent' | 'from' | 'to';

/** A layer in a section. Places are m past the part's edge, below 0 inside it. */
export interface SectionLayer {
  readonly id: string;
  readonly kind: LayerKind;
  /** "flow mesh", and what it is cut from; null where that is not chosen. */
  readonly word: string;
  readonly name: string | null;
  /** -Infinity where it goes on inside. */
  readonly from: number;
  readonly to: number;
  readonly ends: readonly { readonly name: EndName; readonly at: number }[];
}

export interface EdgeSection {
  readonly place: SectionPlace;
  /** The feed or vent that is cut. */
  readonly line: { readonly id: string; readonly name: string; readonly at: number } | null;
  /** The mould climbs by so much at 0, m; null at an edge. */
  readonly step: { readonly name: string; readonly height: number } | null;
  /** From the part up. */
  readonly layers: readonly SectionLayer[];
  /** Of the mould beyond the edge; null where nobody has measured it. */
  readonly flange: number | null;
}

/** Places a job can be cut at: at a feed, vent or step only where there is one. */
export const placesOf = (job: Pick<LaidJob, 'lines' | 'part'>): SectionPlace[] => [
  'edge',
  ...(['feed', 'vent'] as const).filter((kind) => ofKind(job, kind).length > 0),
  ...(highest(job) ? (['step'] as const) : []),
];

/** The part's edge cut across: every layer that is there, with its true ends. */
export function sectionAt(job: LaidJob, place: SectionPlace): EdgeSection {
  if (place === 'step') return overStep(job);
  const line = place === 'edge' ? null : nearestToEdge(job, place);
  const where = wayIn(job, line?.id ?? null);
  return {
    ...{ place, line, step: null, flange: job.part.flange },
    layers: job.layers
      .filter(({ side }) => side === 'bag')
      .map((layer) => {
        const own = cut(job, layer, place, line?.at ?? null);
        return own && endedByZone(own, leftOffFor(job, layer, where));
      })
      .filter((layer) => layer !== null),
  };
}

/** Where the edge is cut, and the way in from there: at the middle of a line, else of the side that is farthest from any. */
function wayIn(job: LaidJob, lineId: string | null): { foot: Point; inward: Point } {
  const part = partShapeOf(job);
  const line = job.lines.find(({ id }) => id === lineId);
  const edges = part.outline.map((a, i) => [a, part.outline[(i + 1) % part.outline.length]!] as const);
  const farOff = ([a, b]: (typeof edges)[number]) =>
    Math.min(1e3, ...job.lines.map(({ points }) => nearestOnLine(between(a, b, 0.5), points).distance));
  const at = line ? middleOfLine(line.points) : null;
  const [a, b] = edges.reduce((best, own) => {
    const isBetter = at
      ? nearestOnLine(at, own).distance < nearestOnLine(at, best).distance
      : farOff(own) > farOff(best);
    return isBetter ? own : best;
  });
  const foot = at ? nearestOnLine(at, [a, b]).point : between(a, b, 0.5);
  const length = distance(a, b) || 1;
  const normal = { x: (a.y - b.y) / length, y: (b.x - a.x) / length };
  const isInside = roomAt(part, along(foot, normal, PROBE)) > 0;
  return { foot, inward: isInside ? normal : { x: -normal.x, y: -normal.y } };
}

/** m: of a step inwards, and how far in is looked. */
const PROBE = 1e-3;
const DEEP = 0.3;
const along = (p: Point, way: Point, by: number): Point => ({ x: p.x + by * way.x, y: p.y + by * way.y });

/** How far inside the edge a layer is left off because of the zones that lie there, m. */
function leftOffFor(job: LaidJob, layer: JobLayer, { foot, inward }: ReturnType<typeof wayIn>): number {
  if (layer.except.length === 0) return 0;
  const isOff = (depth: number) => {
    const at = along(foot, inward, depth);
    const zone = job.zones.findLast(({ outline }) => contains(polygonOf(outline), at));
    return isLeftOff(layer, zone?.id ?? null);
  };
  let depth = PROBE;
  while (depth < DEEP && isOff(depth)) depth += PROBE;
  return depth > PROBE ? depth : 0;
}

/** A zone without it ends a layer before its own end does. */
const endedByZone = (layer: SectionLayer, depth: number): SectionLayer =>
  depth > 0 && -depth < layer.to && layer.from === -Infinity ? { ...layer, to: -depth, ends: [] } : layer;

/** The highest rise or step; null on a flat part. */
const highest = ({ part }: Pick<LaidJob, 'part'>) =>
  part.features
    .filter(({ height }) => height > 0)
    .reduce<LaidJob['part']['features'][number] | null>(
      (most, own) => (most && most.height >= own.height ? most : own),
      null,
    );

/** Over the highest rise: what lies on the whole part goes over it, and is drawn at its edge. */
function overStep(job: LaidJob): EdgeSection {
  const { name, height } = highest(job)!;
  const over = job.layers.filter(
    ({ side, covers }) => side === 'bag' && (covers.kind === 'part' || covers.kind === 'areas'),
  );
  return {
    ...{ place: 'step', line: null, flange: null, step: { name, height } },
    layers: over.map((layer) => ({ ...namedIn(job, layer), from: -Infinity, to: Infinity, ends: [] })),
  };
}

const namedIn = (job: LaidJob, { id, kind, materialId }: JobLayer) => ({
  ...{ id, kind, word: layerWord(kind) },
  name: job.materials.find((own) => own.id === materialId)?.name ?? null,
});

/** The line of a kind that lies nearest to the edge, and how far past it, m. */
function nearestToEdge(job: LaidJob, kind: JobLine['kind']): EdgeSection['line'] {
  const part = partShapeOf(job);
  const lines = ofKind(job, kind).map(({ id, name, points }) => ({ id, name, at: pastEdge(part, points) }));
  return lines.reduce<EdgeSection['line']>(
    (best, own) => (best && Math.abs(best.at) <= Math.abs(own.at) ? best : own),
    null,
  );
}

function pastEdge(part: PartShape, points: JobLine['points']): number {
  const at = middleOfLine(points);
  const { distance } = nearestOnLine(at, [...part.outline, part.outline[0]!]);
  return roomAt(part, at) >= 0 ? -distance : distance;
}

function cut(
  job: LaidJob,
  layer: JobLayer,
  place: Exclude<SectionPlace, 'step'>,
  line: number | null,
): SectionLayer | null {
  const { covers } = layer;
  const named = namedIn(job, layer);
  switch (covers.kind) {
    case 'part': {
      if (place === 'vent' && covers.vent !== null && line !== null)
        return { ...named, from: -Infinity, ...endingAt('vent', Math.min(covers.edge, line - covers.vent)) };
      if (place === 'feed')
        return { ...named, from: -Infinity, ...endingAt('feed', covers.feed ?? covers.edge) };
      return { ...named, from: -Infinity, ...endingAt('edge', covers.edge) };
    }
    case 'areas':
      return { ...named, from: -Infinity, to: 0, ends: [] };
    case 'rim':
      return {
        ...named,
        from: covers.from,
        to: covers.to,
        ends: [
          { name: 'from', at: covers.from },
          { name: 'to', at: covers.to },
        ],
      };
    case 'lines':
      return line !== null && (covers.of === 'both' || covers.of === place)
        ? { ...named, ...about(line, widthOf(job, layer, covers.width)), ends: [] }
        : null;
    case 'ports':
      return line === null ? null : { ...named, ...about(line, covers.width), ends: [] };
  }
}

const endingAt = (name: EndName, at: number) => ({ to: at, ends: [{ name, at }] });
const about = (at: number, width: number) => ({ from: at - width / 2, to: at + width / 2 });

/** Lines are as wide as they are thick. */
const widthOf = (job: LaidJob, { kind }: JobLayer, width: number) =>
  kind === 'lines'
    ? Math.max(...job.lines.map(({ stockId, bore }) => materialOf(job, stockId, 'line')?.bore ?? bore), 0.008)
    : width;

/** Ends are drawn to whole millimetres. */
const toMillimetres = (at: number) => Math.round(1e3 * at) / 1e3;
const NARROWEST = 0.002;

/** An end of a layer drawn to another place, m past the part's edge. */
export const drawEnd = (section: EdgeSection, layerId: string, end: EndName, to: number): Edit =>
  withCovers(layerId, (covers) => {
    const at = toMillimetres(to);
    if (covers.kind === 'rim') {
      if (end === 'from') return { ...covers, from: Math.min(at, toMillimetres(covers.to - NARROWEST)) };
      return end === 'to' ? { ...covers, to: Math.max(at, toMillimetres(covers.from + NARROWEST)) } : covers;
    }
    if (covers.kind !== 'part') return covers;
    switch (end) {
      case 'edge':
        return { ...covers, edge: at };
      case 'feed':
        return { ...covers, feed: at };
      case 'vent':
        return { ...covers, vent: toMillimetres(Math.max(0, (section.line?.at ?? 0) - at)) };
      default:
        return covers;
    }
  });
