import {
  type Diagram,
  type DiagramNode,
  type Drawing,
  type Layout,
  type Shape,
  SOURCE_WORDS,
} from '@bastion/core';
import { Maximize, ZoomIn, ZoomOut } from 'lucide-react';
import { memo, useId, useMemo } from 'react';
import { useOpenJob } from '../../state/job.ts';
import { type Direction, directionOf, nudge } from './nudgeEdits.ts';
import { ShapeView } from '../../ui/ShapeView.tsx';
import { usePrinting } from '../../ui/usePrinting.ts';
import { useView } from './useView.ts';
import './wiring.css';

interface NodeProps {
  readonly node: DiagramNode;
  readonly at: { readonly x: number; readonly y: number };
  readonly shapes: readonly Shape[];
  readonly isChosen: boolean;
  readonly isLit: boolean;
  readonly onPress: (nodeId: string) => void;
  readonly onPick: (nodeId: string) => void;
  readonly onLight: (nodeId: string | undefined) => void;
  /** Undefined for who may not change anything. */
  readonly onNudge: ((nodeId: string, direction: Direction) => void) | undefined;
}

const NodeView = memo(function NodeView({
  node,
  at,
  shapes,
  isChosen,
  isLit,
  onPress,
  onPick,
  onLight,
  onNudge,
}: NodeProps) {
  return (
    <g
      className={`node ${isChosen ? 'chosen' : ''} ${isLit ? 'lit' : ''}`}
      role="button"
      tabIndex={0}
      aria-label={node.lines.join(', ')}
      aria-pressed={isChosen}
      onClick={() => onPress(node.id)}
      onKeyDown={(event) => {
        const direction = event.altKey ? directionOf(event.key) : undefined;
        if (direction !== undefined && onNudge !== undefined) {
          event.preventDefault();
          event.stopPropagation();
          onNudge(node.id, direction);
          return;
        }
        if (event.key !== 'Enter' && event.key !== ' ') return;
        event.preventDefault();
        onPick(node.id);
      }}
      onPointerEnter={() => onLight(node.id)}
      onPointerLeave={() => onLight(undefined)}
    >
      <rect
        className="hit"
        x={at.x - 3}
        y={at.y - 1}
        width={node.widthPx + 4}
        height={node.heightPx + 2}
        rx={3}
      />
      {shapes.map((shape, index) => (
        <ShapeView key={index} shape={shape} />
      ))}
    </g>
  );
});

interface ViewProps {
  readonly diagram: Diagram;
  readonly layout: Layout;
  readonly drawing: Drawing;
  readonly title: string;
  readonly chosen: string | undefined;
  readonly lit: string | undefined;
  readonly onPick: (nodeId: string) => void;
  readonly onLight: (nodeId: string | undefined) => void;
}

/** The single line to look at: drag or arrows move it, + − 0 or the buttons size it, a press picks a part, Alt and an arrow move that. */
export function SingleLineView({ diagram, layout, drawing, title, chosen, lit, onPick, onLight }: ViewProps) {
  const { canEdit } = useOpenJob();
  const { frame, view, fit, zoomBy, centreOn, wasDragged, handlers } = useView(drawing);
  // On paper the whole of it stands, whatever was looked at on the screen.
  const shownView = usePrinting() ? undefined : view;
  const findId = useId();
  const loose = useMemo(() => drawing.shapes.filter((shape) => shape.nodeId === undefined), [drawing]);
  const byNode = useMemo(() => {
    const map = new Map<string, Shape[]>();
    for (const shape of drawing.shapes) {
      if (shape.nodeId === undefined) continue;
      const list = map.get(shape.nodeId);
      if (list === undefined) map.set(shape.nodeId, [shape]);
      else list.push(shape);
    }
    return map;
  }, [drawing]);
  const find = (text: string): void => {
    const wanted = text.trim().toLowerCase();
    const node =
      wanted === ''
        ? undefined
        : diagram.nodes.find(({ lines }) => lines.some((line) => line.toLowerCase().includes(wanted)));
    if (node === undefined) return;
    const at = layout.nodes[node.id] ?? { x: 0, y: 0 };
    onPick(node.id);
    centreOn(at.x + node.widthPx / 2, at.y + node.heightPx / 2);
  };
  return (
    <figure className="sheet m-0">
      <div className="no-print flex flex-wrap items-center gap-1.5 border-b border-rule px-2 py-1">
        <label htmlFor={findId} className="text-[13px] text-quiet">
          Find
        </label>
        <input
          id={findId}
          className="input w-36"
          placeholder="part or rating"
          onKeyDown={(event) => {
            if (event.key === 'Enter') find(event.currentTarget.value);
          }}
        />
        <span className="flex-1" />
        <button
          type="button"
          className="button button-quiet"
          aria-label="Smaller"
          onClick={() => zoomBy(0.8)}
        >
          <ZoomOut size={16} aria-hidden="true" />
        </button>
        <button
          type="button"
          className="button button-quiet"
          aria-label="Larger"
          onClick={() => zoomBy(1.25)}
        >
          <ZoomIn size={16} aria-hidden="true" />
        </button>
        <button type="button" className="button button-quiet" aria-label="Fit all of it" onClick={fit}>
          <Maximize size={16} aria-hidden="true" />
        </button>
      </div>
      <svg
        ref={frame}
        className="single-line block h-[60vh] min-h-80 w-full"
        tabIndex={0}
        role="group"
        aria-label={title}
        viewBox={
          shownView === undefined ? `-12 -12 ${drawing.widthPx + 24} ${drawing.heightPx + 24}` : undefined
        }
        {...handlers}
      >
        <g
          transform={
            shownView === undefined
              ? undefined
              : `scale(${shownView.zoom}) translate(${-shownView.x} ${-shownView.y})`
          }
        >
          {loose.map((shape, index) => (
            <ShapeView key={index} shape={shape} />
          ))}
          {diagram.nodes.map((node) => (
            <NodeView
              key={node.id}
              node={node}
              at={layout.nodes[node.id] ?? { x: 0, y: 0 }}
              shapes={byNode.get(node.id) ?? []}
              isChosen={chosen === node.id}
              isLit={lit === node.id}
              onPress={(id) => {
                if (!wasDragged()) onPick(id);
              }}
              onPick={onPick}
              onLight={onLight}
              onNudge={canEdit ? nudge : undefined}
            />
          ))}
        </g>
      </svg>
      <figcaption className="border-t border-rule px-2 py-1 text-[12.5px] text-quiet">
        Live parts by letter and pattern: {SOURCE_WORDS}. Thin grey is dead in this mode; batteries and arrays
        are always drawn live. ▲ over, ○ not known.
      </figcaption>
    </figure>
  );
}
