export type ReportPaper = 'A4' | 'LETTER';

export const MARGIN = 42;
const SIZES: Readonly<Record<ReportPaper, number>> = { A4: 595.28, LETTER: 612 };

/** Points across a page. */
export const widthOf = (paper: ReportPaper): number => SIZES[paper] - 2 * MARGIN;
