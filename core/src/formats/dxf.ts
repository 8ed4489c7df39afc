import DxfDrawing from 'dxf-writer';
import { arcPoints, type Drawing, type Ink } from '../diagram/shapes.ts';

/** One layer for each ink, with the nearest of the format's numbered colours. */
const LAYERS: Readonly<Record<Ink, number>> = {
  live: 7,
  dead: 8,
  symbol: 7,
  word: 7,
  quiet: 8,
  over: 1,
  unknown: 6,
  path: 30,
};

/** A drawing as DXF text, one drawing unit for each px, y upwards as that format has it. */
export function dxfOf({ heightPx, shapes }: Drawing): string {
  const drawing = new DxfDrawing();
  drawing.setUnits('Millimeters');
  drawing.addLineType('dashed', '_ _ _', [6, -3]);
  for (const [name, colour] of Object.entries(LAYERS)) drawing.addLayer(name, colour, 'CONTINUOUS');
  const up = (y: number): number => heightPx - y;
  for (const shape of shapes) {
    drawing.setActiveLayer(shape.ink);
    switch (shape.kind) {
      case 'line':
        drawing.drawPolyline(shape.points.map(([x, y]) => [x, up(y)]));
        break;
      case 'circle':
        drawing.drawCircle(shape.x, up(shape.y), shape.r);
        break;
      case 'arc':
        drawing.drawPolyline(arcPoints(shape).map(([x, y]) => [x, up(y)]));
        break;
      case 'text':
        drawing.drawText(
          shape.x,
          up(shape.y),
          shape.sizePx * 0.7,
          0,
          // The format's own control marks are not for words that people typed.
          shape.text.replace(/[\r\n]/g, ' ').replace(/%%/g, '% %'),
          shape.anchor === 'start' ? 'left' : shape.anchor === 'middle' ? 'center' : 'right',
        );
        break;
    }
  }
  return drawing.toDxfString();
}
