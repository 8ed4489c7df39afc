import { type Ink, type Shape, svgPath } from '@bastion/core';
import { memo } from 'react';

const INKS: Readonly<Record<Ink, string>> = {
  live: 'var(--ink)',
  dead: 'var(--edge)',
  symbol: 'var(--ink)',
  word: 'var(--ink)',
  quiet: 'var(--quiet)',
  over: 'var(--over)',
  unknown: 'var(--unknown)',
  path: 'var(--touch)',
};

/** One shape of a drawing in the inks of the theme. */
export const ShapeView = memo(function ShapeView({ shape }: { readonly shape: Shape }) {
  const colour = INKS[shape.ink];
  if (shape.kind === 'text')
    return (
      <text
        x={shape.x}
        y={shape.y}
        fontSize={shape.sizePx}
        textAnchor={shape.anchor}
        fontWeight={shape.bold === true ? 600 : 400}
        fill={colour}
      >
        {shape.text}
      </text>
    );
  return (
    <path
      d={svgPath(shape)}
      fill={shape.kind === 'circle' && shape.filled === true ? colour : 'none'}
      stroke={colour}
      strokeWidth={shape.widthPx}
      strokeDasharray={shape.kind === 'line' ? shape.dash?.join(' ') : undefined}
    />
  );
});
