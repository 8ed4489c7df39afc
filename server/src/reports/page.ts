import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces.js';

const INK = '#12282C';
const QUIET = '#4C5E61';

export const LAW =
  'Computed from what was entered; "within" means within the limits entered. Local codes, the equipment manuals and the licensed person on site go before this page.';

/** The frame that every report shares: title, where it comes from, and the caution on each page. */
export function reportPage(title: string, from: string, content: Content[]): TDocumentDefinitions {
  return {
    pageSize: 'A4',
    pageMargins: [40, 48, 40, 56],
    info: { title },
    defaultStyle: { font: 'Roboto', fontSize: 9, color: INK },
    footer: (page, pages) => ({
      margin: [40, 8, 40, 0],
      columns: [
        { text: LAW, fontSize: 7, color: QUIET },
        { text: `${page} / ${pages}`, alignment: 'right', width: 50, fontSize: 8 },
      ],
    }),
    content: [
      { text: title, fontSize: 16, bold: true },
      { text: from, color: QUIET, margin: [0, 2, 0, 10] },
      ...content,
    ],
  };
}

export const heading = (text: string): Content => ({ text, fontSize: 11, bold: true, margin: [0, 10, 0, 4] });

/** A ruled table with a repeated head. */
export function table(widths: (number | '*' | 'auto')[], head: string[], rows: Content[][]): Content {
  return {
    layout: 'lightHorizontalLines',
    table: { headerRows: 1, widths, body: [head.map((text) => ({ text, bold: true })), ...rows] },
  };
}

/** A moment for paper: to the minute, in the one time zone that everybody can check. */
export const moment = (at: Date | string): string =>
  `${(typeof at === 'string' ? at : at.toISOString()).slice(0, 16).replace('T', ' ')} UTC`;
