import type { Drawing, Ink, Shape } from '../diagram/shapes.ts';
import { onCircle } from '../diagram/shapes.ts';

/** Inks of a drawing on white paper. */
const PAPER: Readonly<Record<Ink, string>> = {
  live: '#12282C',
  dead: '#8A9696',
  symbol: '#12282C',
  word: '#12282C',
  quiet: '#4C5E61',
  over: '#A3152A',
  unknown: '#565080',
  path: '#9A4316',
};

const escape = (text: string): string =>
  text.replace(
    /[&<>"]/g,
    (found) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[found] ?? found,
  );
const round = (value: number): string => String(Math.round(value * 100) / 100);

/** The path of a shape as SVG writes it; undefined for words. */
export function svgPath(shape: Shape): string | undefined {
  switch (shape.kind) {
    case 'line':
      return shape.points.map(([x, y], at) => `${at === 0 ? 'M' : 'L'}${round(x)} ${round(y)}`).join('');
    case 'circle':
      return `M${round(shape.x - shape.r)} ${round(shape.y)}a${round(shape.r)} ${round(shape.r)} 0 1 0 ${round(2 * shape.r)} 0a${round(shape.r)} ${round(shape.r)} 0 1 0 ${round(-2 * shape.r)} 0`;
    case 'arc': {
      const [x1, y1] = onCircle(shape.x, shape.y, shape.r, shape.fromDeg);
      const [x2, y2] = onCircle(shape.x, shape.y, shape.r, shape.toDeg);
      const isLong = Math.abs(shape.toDeg - shape.fromDeg) > 180 ? 1 : 0;
      return `M${round(x1)} ${round(y1)}A${round(shape.r)} ${round(shape.r)} 0 ${isLong} 1 ${round(x2)} ${round(y2)}`;
    }
    case 'text':
      return undefined;
  }
}

function element(shape: Shape): string {
  const colour = PAPER[shape.ink];
  if (shape.kind === 'text')
    return `<text x="${round(shape.x)}" y="${round(shape.y)}" font-size="${shape.sizePx}" text-anchor="${shape.anchor}"${shape.bold === true ? ' font-weight="bold"' : ''} fill="${colour}">${escape(shape.text)}</text>`;
  const dash =
    shape.kind === 'line' && shape.dash !== undefined ? ` stroke-dasharray="${shape.dash.join(' ')}"` : '';
  const fill = shape.kind === 'circle' && shape.filled === true ? colour : 'none';
  return `<path d="${svgPath(shape) ?? ''}" fill="${fill}" stroke="${colour}" stroke-width="${shape.widthPx}"${dash}/>`;
}

/** A drawing as an SVG document. `fontFamily` names a font that the reader has. */
export function svgOf({ widthPx, heightPx, shapes }: Drawing, fontFamily = 'sans-serif'): string {
  const size = `width="${round(widthPx)}" height="${round(heightPx)}" viewBox="0 0 ${round(widthPx)} ${round(heightPx)}"`;
  return `<svg xmlns="http://www.w3.org/2000/svg" ${size} font-family="${escape(fontFamily)}">\n${shapes.map(element).join('\n')}\n</svg>\n`;
}
