import { createRequire } from 'node:module';
import type { Report, ReportBlock } from '@wick/plan/review/report';
import pdfmake from 'pdfmake';
import { MARGIN, widthOf, type ReportPaper } from './paper.ts';
import type { Column, Content, TDocumentDefinitions } from 'pdfmake/interfaces.js';

const require = createRequire(import.meta.url);
const barlow =
  require.resolve('@fontsource/barlow-semi-condensed/files/barlow-semi-condensed-latin-400-normal.woff');
const barlowBold =
  require.resolve('@fontsource/barlow-semi-condensed/files/barlow-semi-condensed-latin-600-normal.woff');
const fonts = {
  Atkinson: {
    normal:
      require.resolve('@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-400-normal.woff'),
    bold: require.resolve('@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-700-normal.woff'),
    italics:
      require.resolve('@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-400-italic.woff'),
    bolditalics:
      require.resolve('@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-700-italic.woff'),
  },
  Barlow: { normal: barlow, bold: barlowBold, italics: barlow, bolditalics: barlowBold },
};

const ourFonts = new Set(Object.values(fonts).flatMap((font) => Object.values(font)));

const COLUMNS = 3;
const INK = '#1E2A2F';
const RULE = '#B9B3A4';

export interface PdfRequest {
  readonly report: Report;
  readonly paper: ReportPaper;
  /** Files of its pictures by their ids; one that is not there is said to be missing. */
  readonly pictures: ReadonlyMap<string, string>;
}

/**
 * Writes a record as PDF: fonts shipped with the program, nothing fetched, and no date in it but the record's own, so that the same record
 * is the same file.
 */
export async function pdfOf({ report, paper, pictures }: PdfRequest): Promise<Uint8Array> {
  const width = widthOf(paper);
  const date = new Date(report.date);
  const definition: TDocumentDefinitions = {
    pageSize: paper,
    pageMargins: [MARGIN, MARGIN, MARGIN, MARGIN + 14],
    info: {
      title: report.title,
      creator: 'Vivid Wick',
      producer: 'Vivid Wick',
      creationDate: date,
      modDate: date,
    },
    defaultStyle: { font: 'Atkinson', fontSize: 9, color: INK, lineHeight: 1.15 },
    footer: (page: number, count: number): Content => ({
      columns: [
        { text: report.foot, width: '*' },
        { text: `${page} of ${count}`, width: 40, alignment: 'right' },
      ],
      fontSize: 7,
      margin: [MARGIN, 6, MARGIN, 0],
    }),
    content: [
      { text: report.title, font: 'Barlow', fontSize: 22, bold: true },
      { text: report.subtitle, margin: [0, 0, 0, 8] },
      ...report.sections.flatMap(({ heading, blocks }): Content[] => [
        { text: heading, font: 'Barlow', fontSize: 14, bold: true, margin: [0, 12, 0, 4], headlineLevel: 1 },
        ...blocks.map((block) => contentOf(block, width, pictures)),
      ]),
    ],
    // A heading never stands alone at the foot of a page.
    pageBreakBefore: (node, queries) =>
      node.headlineLevel === 1 && queries.getFollowingNodesOnPage().length === 0,
  };
  const shown = new Set(pictures.values());
  pdfmake.setFonts(fonts);
  pdfmake.setUrlAccessPolicy(() => false);
  pdfmake.setLocalAccessPolicy((path: string) => ourFonts.has(path) || shown.has(path));
  return pdfmake.createPdf(definition).getBuffer();
}

function contentOf(block: ReportBlock, width: number, pictures: PdfRequest['pictures']): Content {
  switch (block.kind) {
    case 'facts':
      return {
        layout: 'noBorders',
        table: {
          widths: [110, '*'],
          body: block.rows.map(([name, value]) => [{ text: name, bold: true }, value]),
        },
      };
    case 'text':
      return { stack: [...block.lines] };
    case 'svg':
      return { svg: block.svg, width, margin: [0, 2, 0, 6] };
    case 'photos':
      return photosOf(block.photos, width, pictures);
    case 'table':
      return {
        margin: [0, 2, 0, 4],
        layout: {
          hLineColor: () => RULE,
          hLineWidth: (n: number) => (n === 1 ? 0.8 : 0.4),
          vLineWidth: () => 0,
          paddingLeft: () => 2,
          paddingRight: () => 4,
        },
        table: {
          headerRows: 1,
          dontBreakRows: true,
          widths: widthsOf(block.widths, width),
          body: [
            block.head.map((text) => ({ text, bold: true, font: 'Barlow' })),
            ...block.rows.map((row) => row.map((text) => ({ text: breakable(text) }))),
          ],
        },
      };
  }
}

/** What the padding of the cells leaves. */
const widthsOf = (shares: readonly number[], width: number) =>
  shares.map((share) => share * (width - 6 * shares.length));

/** A word longer than a line would run off the page. */
const LONGEST_WORD = 40;
const breakable = (text: string) => text.replace(new RegExp(`\\S{${LONGEST_WORD}}`, 'g'), '$& ');

function photosOf(
  photos: Extract<ReportBlock, { kind: 'photos' }>['photos'],
  width: number,
  pictures: PdfRequest['pictures'],
): Content {
  const own = (width - 8 * (COLUMNS - 1)) / COLUMNS;
  const cells = photos.map(({ id, caption }): Column => {
    const path = pictures.get(id);
    const picture: Content = path
      ? { image: path, fit: [own, own] }
      : { text: 'This picture is not here.', italics: true };
    return { stack: [picture, { text: caption || ' ', fontSize: 8 }], width: own, unbreakable: true };
  });
  const rows = Array.from({ length: Math.ceil(cells.length / COLUMNS) }, (_, n): Content => ({
    columns: cells.slice(COLUMNS * n, COLUMNS * (n + 1)),
    columnGap: 8,
    margin: [0, 2, 0, 6],
    unbreakable: true,
  }));
  return { stack: rows };
}
