import { drillingHoles, type Installation, type Obstacle, type OnWall } from '@bastion/core';

/** Drawing units of the picture in a metre. */
export const PER_M = 100;

export const OBSTACLE_PATTERN: Record<Obstacle['kind'], string> = {
  window: 'url(#wall-panes)',
  door: 'url(#wall-panes)',
  'gas-meter': 'url(#wall-cross)',
  combustible: 'url(#wall-cross)',
  'heat-source': 'url(#wall-cross)',
  sunlit: 'url(#wall-dots)',
  wet: 'url(#wall-dots)',
  pipe: 'url(#wall-lines)',
  other: 'url(#wall-lines)',
};

export function Patterns() {
  const stroke = { stroke: 'var(--edge)', strokeWidth: 0.8, fill: 'none' };
  return (
    <defs>
      <pattern id="wall-lines" width="8" height="8" patternUnits="userSpaceOnUse">
        <path d="M0 8 L8 0" {...stroke} />
      </pattern>
      <pattern id="wall-cross" width="9" height="9" patternUnits="userSpaceOnUse">
        <path d="M0 9 L9 0 M0 0 L9 9" {...stroke} />
      </pattern>
      <pattern id="wall-dots" width="8" height="8" patternUnits="userSpaceOnUse">
        <circle cx="4" cy="4" r="1.1" fill="var(--edge)" />
      </pattern>
      <pattern id="wall-panes" width="20" height="20" patternUnits="userSpaceOnUse">
        <path d="M0 0 H20 M0 0 V20" {...stroke} />
      </pattern>
    </defs>
  );
}

export function Grid({ widthM, heightM, isKnown }: { widthM: number; heightM: number; isKnown: boolean }) {
  const steps = (most: number): number[] => Array.from({ length: Math.floor(most * 2) + 1 }, (_, n) => n / 2);
  return (
    <g aria-hidden="true">
      <rect
        width={widthM * PER_M}
        height={heightM * PER_M}
        fill="var(--ground)"
        stroke="var(--ink)"
        strokeWidth={2}
        strokeDasharray={isKnown ? undefined : '8 6'}
      />
      {steps(widthM).map((m) => (
        <g key={`x${m}`}>
          <line
            x1={m * PER_M}
            x2={m * PER_M}
            y1={0}
            y2={heightM * PER_M}
            stroke="var(--rule)"
            strokeWidth={0.6}
          />
          {m % 1 === 0 && (
            <text
              x={m * PER_M}
              y={heightM * PER_M + 14}
              textAnchor="middle"
              fontSize={11}
              fill="var(--quiet)"
            >
              {m} m
            </text>
          )}
        </g>
      ))}
      {steps(heightM).map((m) => (
        <g key={`y${m}`}>
          <line
            x1={0}
            x2={widthM * PER_M}
            y1={(heightM - m) * PER_M}
            y2={(heightM - m) * PER_M}
            stroke="var(--rule)"
            strokeWidth={0.6}
          />
          {m % 1 === 0 && (
            <text x={-5} y={(heightM - m) * PER_M + 4} textAnchor="end" fontSize={11} fill="var(--quiet)">
              {m}
            </text>
          )}
        </g>
      ))}
      <path
        d={`M-6 ${heightM * PER_M} h12 M0 ${heightM * PER_M - 6} v12`}
        stroke="var(--touch)"
        strokeWidth={2}
      />
    </g>
  );
}

export function Routes({ installation, heightM }: { installation: Installation; heightM: number }) {
  const centreOf = (id: string): string | undefined => {
    const found = installation.wall.find((one) => one.mounted.id === id);
    if (found?.rect.known !== true) return undefined;
    const { xM, yM, widthM, heightM: tallM } = found.rect.value;
    return `${(xM + widthM / 2) * PER_M},${(heightM - yM - tallM / 2) * PER_M}`;
  };
  return (
    <g aria-hidden="true">
      {installation.routes.map(({ route }) => {
        const points = [
          centreOf(route.fromId),
          ...route.points.map((point) => `${point.xM * PER_M},${(heightM - point.yM) * PER_M}`),
          centreOf(route.toId),
        ];
        if (points.includes(undefined)) return null;
        return (
          <polyline
            key={route.id}
            points={points.join(' ')}
            fill="none"
            stroke="var(--quiet)"
            strokeWidth={2.2}
            strokeDasharray="7 3"
          />
        );
      })}
    </g>
  );
}

export function Holes({ wall, heightM }: { wall: readonly OnWall[]; heightM: number }) {
  return (
    <g aria-hidden="true" stroke="var(--ink)" strokeWidth={0.9}>
      {drillingHoles(wall).map((hole, index) => (
        <path
          key={index}
          d={`M${hole.xM * PER_M - 3} ${(heightM - hole.yM) * PER_M} h6 M${hole.xM * PER_M} ${(heightM - hole.yM) * PER_M - 3} v6`}
        />
      ))}
    </g>
  );
}
