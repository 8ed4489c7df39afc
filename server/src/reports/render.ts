import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import pdfmake from 'pdfmake';
import type { TDocumentDefinitions } from 'pdfmake/interfaces.js';

const fontFolder = join(
  dirname(createRequire(import.meta.url).resolve('pdfmake/package.json')),
  'fonts',
  'Roboto',
);

pdfmake.setFonts({
  Roboto: {
    normal: join(fontFolder, 'Roboto-Regular.ttf'),
    bold: join(fontFolder, 'Roboto-Medium.ttf'),
    italics: join(fontFolder, 'Roboto-Italic.ttf'),
    bolditalics: join(fontFolder, 'Roboto-MediumItalic.ttf'),
  },
});
// A report takes nothing from outside: no addresses, and no files but its fonts.
pdfmake.setUrlAccessPolicy(() => false);
pdfmake.setLocalAccessPolicy((path) => path.startsWith(fontFolder));

/** Turns a page definition into the bytes of a PDF. */
export function renderPdf(definition: TDocumentDefinitions): Promise<Buffer> {
  return pdfmake.createPdf(definition).getBuffer();
}
