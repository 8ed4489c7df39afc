import { concerns, type Finding, obstacleLabel, type Rect, type State, zoneOf } from '@bastion/core';
import { type KeyboardEvent, type PointerEvent, useRef, useState } from 'react';
import { useJob, useOpenJob } from '../../state/job.ts';
import { placeIn, removeFromWall, roundM, SNAP_M, snapTo, thingIn } from './wallEdits.ts';
import { Grid, Holes, OBSTACLE_PATTERN, Patterns, PER_M, Routes } from './wallScenery.tsx';

const MARGIN = 34;
const UNKNOWN_WALL = { widthM: 4, heightM: 2.6 };

interface Drag {
  readonly id: string;
  readonly from: { readonly x: number; readonly y: number };
  readonly start: Rect;
  readonly at: { readonly xM: number; readonly yM: number };
}

interface WallDrawingProps {
  readonly chosenId: string | undefined;
  readonly onChoose: (id: string | undefined) => void;
}

const STATE_INK: Record<State, string> = {
  over: 'var(--over)',
  tight: 'var(--tight)',
  within: 'var(--ink)',
  unknown: 'var(--unknown)',
};
const RANK: readonly State[] = ['over', 'unknown', 'tight', 'within'];

/** The worst that is found about a thing on the wall. */
const worstOf = (findings: readonly Finding[], id: string): State =>
  RANK.find((state) =>
    findings.some((finding) => concerns(finding.subject, { kind: 'place', id }) && finding.state === state),
  ) ?? 'within';

function useWallMoves() {
  const { canEdit } = useOpenJob();
  const change = useJob((store) => store.change);
  const moveTo = (id: string, label: string, xM: number, yM: number): void => {
    if (!canEdit) return;
    change(`Move ${label}`, (draft) => {
      const thing = thingIn(placeIn(draft), id);
      if (thing === undefined) return;
      thing.xM = xM;
      thing.yM = yM;
    });
  };
  const remove = (id: string, label: string): void => {
    if (canEdit) change(`Take ${label} off the wall`, (draft) => removeFromWall(draft, id));
  };
  return { moveTo, remove };
}

/** How far one press of an arrow goes, m: a grid step, with Shift a finger's breadth, with Alt a millimetre. */
function stepOf(event: KeyboardEvent): number {
  return event.altKey ? 0.001 : event.shiftKey ? 0.01 : SNAP_M;
}

interface ThingProps {
  readonly id: string;
  readonly label: string;
  readonly rect: Rect;
  readonly heightM: number;
  readonly fill: string;
  readonly ink: string;
  readonly isChosen: boolean;
  readonly zone: Rect | undefined;
  readonly state: State | undefined;
  readonly path: string;
  readonly onDown: (event: PointerEvent<SVGGElement>) => void;
  readonly onKey: (event: KeyboardEvent) => void;
  readonly onFocus: () => void;
}

/** About how wide a letter is, as a share of the size of the type. */
const LETTER = 0.56;
const LABEL_SIZE = 12;

/** Words onto as many lines as a width takes. */
function linesOfLabel(label: string, width: number): string[] {
  const most = Math.max(6, Math.floor(width / (LABEL_SIZE * LETTER)));
  return label.split(' ').reduce<string[]>((lines, word) => {
    const last = lines.at(-1);
    return last !== undefined && last.length + 1 + word.length <= most
      ? [...lines.slice(0, -1), `${last} ${word}`]
      : [...lines, word];
  }, []);
}

function ThingLabel({
  label,
  x,
  y,
  width,
}: {
  readonly label: string;
  readonly x: number;
  readonly y: number;
  readonly width: number;
}) {
  const lines = linesOfLabel(label, width);
  return (
    <text
      textAnchor="middle"
      fontSize={LABEL_SIZE}
      fontWeight={600}
      fill="var(--ink)"
      stroke="var(--sheet)"
      strokeWidth={3}
      paintOrder="stroke"
    >
      {lines.map((words, index) => (
        <tspan key={index} x={x} y={y + 4 + (index - (lines.length - 1) / 2) * (LABEL_SIZE + 1)}>
          {words}
        </tspan>
      ))}
    </text>
  );
}

function Thing(props: ThingProps) {
  const { label, rect, heightM, fill, ink, isChosen, zone, state } = props;
  const box = (one: Rect) => ({
    x: one.xM * PER_M,
    y: (heightM - one.yM - one.heightM) * PER_M,
    width: one.widthM * PER_M,
    height: one.heightM * PER_M,
  });
  const body = box(rect);
  const words = `${label}, ${rect.widthM} by ${rect.heightM} m, left edge ${roundM(rect.xM)} m, lower edge ${roundM(rect.yM)} m${state === undefined ? '' : `, ${state}`}`;
  return (
    <g
      role="button"
      tabIndex={0}
      aria-label={words}
      aria-pressed={isChosen}
      data-field={props.path}
      className="wall-thing"
      onPointerDown={props.onDown}
      onKeyDown={props.onKey}
      onFocus={props.onFocus}
    >
      {zone !== undefined && (
        <rect {...box(zone)} fill="none" stroke={ink} strokeWidth={0.8} strokeDasharray="3 4" />
      )}
      <rect {...body} fill="var(--sheet)" />
      <rect {...body} fill={fill} stroke={isChosen ? 'var(--touch)' : ink} strokeWidth={isChosen ? 3 : 1.6} />
      <ThingLabel label={label} x={body.x + body.width / 2} y={body.y + body.height / 2} width={body.width} />
      {state === 'over' && (
        <text
          x={body.x + body.width - 4}
          y={body.y + 14}
          textAnchor="end"
          fontSize={13}
          fontWeight={700}
          fill="var(--over)"
        >
          ✕
        </text>
      )}
    </g>
  );
}

/** The wall to scale: units with their clearances, obstacles, routes and drilling marks. Drag, arrow keys, or typed figures. */
export function WallDrawing({ chosenId, onChoose }: WallDrawingProps) {
  const { design, analysis } = useOpenJob();
  const { installation, findings } = analysis;
  const { moveTo, remove } = useWallMoves();
  const [drag, setDrag] = useState<Drag>();
  const svg = useRef<SVGSVGElement>(null);
  const place = design.place;
  const widthM = place?.wall?.widthM ?? UNKNOWN_WALL.widthM;
  const heightM = place?.wall?.heightM ?? UNKNOWN_WALL.heightM;
  const isKnown = place?.wall?.widthM !== undefined && place.wall.heightM !== undefined;

  const pointOf = (event: PointerEvent): { x: number; y: number } => {
    const box = svg.current?.getBoundingClientRect();
    const scale = (widthM * PER_M + 2 * MARGIN) / (box?.width ?? 1);
    return { x: (event.clientX * scale) / PER_M, y: (event.clientY * scale) / PER_M };
  };
  const others = (id: string): Rect[] => [
    ...installation.wall.flatMap((one) => (one.mounted.id !== id && one.rect.known ? [one.rect.value] : [])),
    ...(place?.obstacles ?? []).filter((one) => one.id !== id),
  ];
  const onMove = (event: PointerEvent): void => {
    if (drag === undefined) return;
    const now = pointOf(event);
    const moved = {
      ...drag.start,
      xM: drag.start.xM + now.x - drag.from.x,
      yM: drag.start.yM - (now.y - drag.from.y),
    };
    setDrag({ ...drag, at: snapTo(moved, others(drag.id)) });
  };
  const onUp = (): void => {
    if (drag === undefined) return;
    const { at, start, id } = drag;
    setDrag(undefined);
    if (at.xM !== start.xM || at.yM !== start.yM) moveTo(id, 'it', at.xM, at.yM);
  };
  const thing = (
    id: string,
    label: string,
    rect: Rect,
    path: string,
    more: { fill: string; ink: string; zone?: (rect: Rect) => Rect; state?: State },
  ) => {
    const isDragged = drag?.id === id;
    const shown = isDragged ? { ...rect, ...drag.at } : rect;
    return (
      <Thing
        key={id}
        id={id}
        label={label}
        rect={shown}
        heightM={heightM}
        fill={more.fill}
        ink={more.ink}
        isChosen={chosenId === id}
        zone={more.zone?.(shown)}
        state={more.state}
        path={path}
        onFocus={() => onChoose(id)}
        onDown={(event) => {
          if (event.button !== 0) return;
          event.currentTarget.setPointerCapture(event.pointerId);
          onChoose(id);
          setDrag({ id, from: pointOf(event), start: rect, at: { xM: rect.xM, yM: rect.yM } });
        }}
        onKey={(event) => {
          const step = stepOf(event);
          if (event.key === 'ArrowLeft') moveTo(id, label, roundM(rect.xM - step), rect.yM);
          else if (event.key === 'ArrowRight') moveTo(id, label, roundM(rect.xM + step), rect.yM);
          else if (event.key === 'ArrowUp') moveTo(id, label, rect.xM, roundM(rect.yM + step));
          else if (event.key === 'ArrowDown') moveTo(id, label, rect.xM, roundM(rect.yM - step));
          else if (event.key === 'Delete') remove(id, label);
          else return;
          event.preventDefault();
        }}
      />
    );
  };
  return (
    <svg
      ref={svg}
      viewBox={`${-MARGIN} ${-MARGIN / 2} ${widthM * PER_M + 2 * MARGIN} ${heightM * PER_M + MARGIN * 1.2}`}
      className="w-full touch-none select-none"
      role="group"
      aria-label="Wall plan, to scale"
      onPointerMove={onMove}
      onPointerUp={onUp}
      onPointerCancel={() => setDrag(undefined)}
    >
      <Patterns />
      <Grid widthM={widthM} heightM={heightM} isKnown={isKnown} />
      {(place?.obstacles ?? []).map((one) =>
        thing(one.id, obstacleLabel(one), one, `place/obstacles/${one.id}`, {
          fill: OBSTACLE_PATTERN[one.kind],
          ink: 'var(--edge)',
        }),
      )}
      <Routes installation={installation} heightM={heightM} />
      {installation.wall.map((one) => {
        if (!one.rect.known) return null;
        const state = worstOf(findings, one.mounted.id);
        return thing(one.mounted.id, one.label, one.rect.value, `place/mounted/${one.mounted.id}`, {
          fill: state === 'over' ? 'var(--over-wash)' : 'transparent',
          ink: STATE_INK[state],
          state,
          zone: (rect) => (one.clearance.known ? zoneOf(rect, one.clearance.value) : rect),
        });
      })}
      <Holes wall={installation.wall} heightM={heightM} />
    </svg>
  );
}
