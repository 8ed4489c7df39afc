import { lineVoltages, type SupplyKind } from '@bastion/core';

const COUNT = { 'single-phase': 1, 'split-phase': 2, 'three-phase': 3 } as const;
const SIZE = 240;
const MIDDLE = SIZE / 2;
const REACH = 84;

interface SupplyVectorsProps {
  readonly supply: SupplyKind | undefined;
  readonly lineVoltageV: number | undefined;
}

/** Line to line from line to neutral: the distance between the ends of two vectors. */
function lineToLineV(supply: SupplyKind, lineVoltageV: number): number | undefined {
  const [a, b] = lineVoltages(COUNT[supply], lineVoltageV);
  return a === undefined || b === undefined ? undefined : Math.hypot(a.re - b.re, a.im - b.im);
}

/** The supply drawn as its voltage vectors: one, two at 180°, three at 120°. L1 points up. */
export function SupplyVectors({ supply, lineVoltageV }: SupplyVectorsProps) {
  const vectors = supply === undefined ? [] : lineVoltages(COUNT[supply], 1);
  const between =
    supply === undefined || lineVoltageV === undefined ? undefined : lineToLineV(supply, lineVoltageV);
  return (
    <figure className="w-fit">
      <svg
        viewBox={`0 0 ${SIZE} ${SIZE}`}
        width={SIZE}
        height={SIZE}
        role="img"
        aria-label={supply === undefined ? 'Supply not chosen' : `Vectors of a ${supply} supply`}
      >
        <circle cx={MIDDLE} cy={MIDDLE} r={REACH} fill="none" stroke="var(--rule)" strokeDasharray="3 4" />
        {vectors.map((vector, index) => {
          // Turned by a quarter so that L1 stands upright; the page counts y downwards.
          const x = MIDDLE - vector.im * REACH;
          const y = MIDDLE - vector.re * REACH;
          const outX = MIDDLE - vector.im * (REACH + 20);
          const outY = MIDDLE - vector.re * (REACH + 20);
          return (
            <g key={index}>
              <line
                x1={MIDDLE}
                y1={MIDDLE}
                x2={x}
                y2={y}
                stroke="var(--ink)"
                strokeWidth={2.5}
                markerEnd="url(#vector-end)"
              />
              <text
                x={outX}
                y={outY + 5}
                textAnchor="middle"
                fill="var(--ink)"
                fontSize={15}
                fontWeight={650}
              >
                L{index + 1}
              </text>
            </g>
          );
        })}
        <circle cx={MIDDLE} cy={MIDDLE} r={4} fill="var(--sheet)" stroke="var(--ink)" strokeWidth={2} />
        <text
          x={MIDDLE + 9}
          y={MIDDLE + (supply === 'three-phase' ? -8 : 5)}
          fill="var(--quiet)"
          fontSize={13}
        >
          N
        </text>
        <defs>
          <marker
            id="vector-end"
            viewBox="0 0 8 8"
            refX={7}
            refY={4}
            markerWidth={5}
            markerHeight={5}
            orient="auto"
          >
            <path d="M0 0 L8 4 L0 8 z" fill="var(--ink)" />
          </marker>
        </defs>
      </svg>
      <figcaption className="text-center text-quiet">
        {supply === undefined && 'Choose a supply to see its vectors'}
        {supply !== undefined && lineVoltageV === undefined && 'Line voltage not known'}
        {lineVoltageV !== undefined && supply !== undefined && (
          <>
            {lineVoltageV} V line to neutral
            {between !== undefined && <>, {Math.round(between)} V line to line</>}
          </>
        )}
      </figcaption>
    </figure>
  );
}
