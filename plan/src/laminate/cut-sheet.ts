import { booksOf } from './books.ts';
import { materialOf } from '../job/material-of.ts';
import { regionArea } from '@wick/core/geometry/overlay';
import { piecesOf, type CutPiece } from '@wick/core/kit/cut-pieces';
import { nest, type Nest } from '@wick/core/kit/nest';
import { writeCsv } from '../files/csv.ts';
import { remembering } from '../remembering.ts';
import type { LaidJob } from '../job/laid.ts';
import { plyCutsOf } from './ply-book.ts';
import { regionsOf } from './regions.ts';

export interface SheetPiece {
  readonly label: string;
  readonly name: string;
  readonly zone: string;
  readonly angle: number;
  readonly piece: CutPiece;
}

export interface RollCut {
  readonly materialId: string;
  readonly name: string;
  readonly width: number;
  /** The library does not say how wide it is. */
  readonly isAssumedWidth: boolean;
  readonly nest: Nest;
}

export interface CutSheet {
  readonly pieces: readonly SheetPiece[];
  readonly rolls: readonly RollCut[];
  /** Areas in m2; sheets at least, null where the library does not say how large they are. */
  readonly cores: readonly {
    readonly name: string;
    readonly zone: string;
    readonly area: number;
    readonly sheets: number | null;
  }[];
}

/** Cloth comes about this wide: common practice, no source. */
export const USUAL_ROLL = 1.25;

const sheets = remembering<CutSheet>(4);

/** All that decides a cut sheet; names too, for they stand on it. */
export const whatItHangsOn = ({ part, zones, laminate, materials }: LaidJob, overlap: number): object[] => [
  part.outline,
  part.holes,
  zones,
  laminate,
  materials,
  { overlap },
];

/**
 * All that is to be cut for a job, in lay order, and each cloth on its roll; cores by their area.
 * @param overlap m that the pieces of a ply lap over each other
 */
export function cutSheetOf(job: LaidJob, overlap: number): CutSheet {
  return sheets(whatItHangsOn(job, overlap), () => made(job, overlap));
}

function made(job: LaidJob, overlap: number): CutSheet {
  const books = booksOf(job);
  const cuts = plyCutsOf(job);
  const widthOf = (id: string) => materialOf(job, id, 'fabric')?.rollWidth ?? USUAL_ROLL;
  const pieces = cuts.flatMap((cut) =>
    piecesOf(cut, widthOf(cut.materialId), overlap).map((piece): SheetPiece => ({
      label: piece.label,
      name: cut.name,
      zone: books[cut.book]!.name,
      angle: cut.angle,
      piece,
    })),
  );
  const materialIds = [...new Set(cuts.map((cut) => cut.materialId))];
  const orders = new Map(cuts.map((cut) => [cut.order, cut.materialId]));
  const rolls = materialIds.map((materialId): RollCut => {
    const own = pieces
      .filter(({ piece }) => orders.get(piece.order) === materialId)
      .map(({ piece }) => piece);
    const width = widthOf(materialId);
    return {
      materialId,
      name: cuts.find((cut) => cut.materialId === materialId)!.name,
      width,
      isAssumedWidth: !materialOf(job, materialId, 'fabric')?.rollWidth,
      nest: nest(own, width),
    };
  });
  return { pieces, rolls, cores: coresOf(job) };
}

/** Pieces in lay order as a table. */
export function cutCsv({ pieces }: Pick<CutSheet, 'pieces'>): string {
  const rows = pieces.map(({ label, name, angle, zone, piece }) => [
    label,
    name,
    zone,
    Math.round((angle * 180) / Math.PI),
    Math.round(piece.length * 1e3),
    Math.round(piece.width * 1e3),
  ]);
  return writeCsv([['label', 'cloth', 'zone', 'angle_deg', 'length_mm', 'width_mm'], ...rows]);
}

function coresOf(job: LaidJob): CutSheet['cores'] {
  const regions = regionsOf(job);
  return booksOf(job).flatMap(({ laminate, name }, n) => {
    const core = materialOf(job, laminate.coreId, 'core');
    if (!core) return [];
    const region = regions[n]!;
    const sheet = (core.sheetLength ?? 0) * (core.sheetWidth ?? 0);
    return [
      {
        name: core.name,
        zone: name,
        area: regionArea(region),
        sheets: sheet > 0 ? Math.ceil(regionArea(region) / sheet) : null,
      },
    ];
  });
}
