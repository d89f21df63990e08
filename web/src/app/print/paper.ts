/** Sheets and scales of printed plans. */
export interface Paper {
  readonly name: string;
  /** mm, lying. */
  readonly width: number;
  readonly height: number;
}

export const papers: readonly Paper[] = [
  { name: 'A4', width: 297, height: 210 },
  { name: 'A3', width: 420, height: 297 },
  { name: 'A1', width: 841, height: 594 },
  { name: 'Letter', width: 279.4, height: 215.9 },
];

/** Scales of ISO 5455 (1:1, 2, 5 and tens of them), with 1:25 beside them. */
export const scales = [1, 2, 5, 10, 20, 25, 50, 100];

/** Margin of the sheet, room for dimension lines round the plan, and for the heading above it, mm. */
export const MARGIN = 10;
export const DIMENSION_ROOM = 24;
export const HEADING = 16;

/** The largest scale at which a plan fits a sheet; null where none does. */
export function fittingScale(plan: { width: number; height: number }, paper: Paper): number | null {
  const room = {
    width: paper.width - 2 * MARGIN - 2 * DIMENSION_ROOM,
    height: paper.height - 2 * MARGIN - HEADING - 2 * DIMENSION_ROOM,
  };
  return (
    scales.find(
      (scale) => (plan.width * 1e3) / scale <= room.width && (plan.height * 1e3) / scale <= room.height,
    ) ?? null
  );
}
