import type { JobLine } from '@wick/contract/job/job';
import type { JobLayer, LayerKind } from '@wick/contract/job/stack';
import { nearestOnLine } from '@wick/core/geometry/along';
import { roomAt, type PartShape } from '@wick/core/layouts/frame';
import type { Edit } from '../job/edits.ts';
import type { LaidJob } from '../job/laid.ts';
import { materialOf } from '../job/material-of.ts';
import { partShapeOf } from '../layout/fit.ts';
import { middleOfLine, ofKind } from '../layout/lines.ts';
import { withCovers } from './edits.ts';
import { layerWord } from './kinds.ts';

/** Where the part's edge is cut: where nothing but the edge ends a layer, at a feed along it, or at a vent. */
export type SectionPlace = 'edge' | 'feed' | 'vent';

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
  /** From the part up. */
  readonly layers: readonly SectionLayer[];
  /** Of the mould beyond the edge; null where nobody has measured it. */
  readonly flange: number | null;
}

/** Places a job can be cut at: at a feed or vent only where there is one. */
export const placesOf = (job: Pick<LaidJob, 'lines'>): SectionPlace[] => [
  'edge',
  ...(['feed', 'vent'] as const).filter((kind) => ofKind(job, kind).length > 0),
];

/** The part's edge cut across: every layer that is there, with its true ends. */
export function sectionAt(job: LaidJob, place: SectionPlace): EdgeSection {
  const line = place === 'edge' ? null : nearestToEdge(job, place);
  return {
    place,
    line,
    flange: job.part.flange,
    layers: job.layers
      .filter(({ side }) => side === 'bag')
      .map((layer) => cut(job, layer, place, line?.at ?? null))
      .filter((layer) => layer !== null),
  };
}

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

function cut(job: LaidJob, layer: JobLayer, place: SectionPlace, line: number | null): SectionLayer | null {
  const { id, kind, covers, materialId } = layer;
  const named = {
    ...{ id, kind, word: layerWord(kind) },
    name: job.materials.find((own) => own.id === materialId)?.name ?? null,
  };
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
