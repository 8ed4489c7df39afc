import { type CompiledStack, type Installation, isOwnBank, type Stack, unitLines } from '@bastion/core';
import { useJob } from '../../state/job.ts';

interface StackPictureProps {
  readonly installation: Installation;
  readonly compiled: CompiledStack;
}

const WIDE = 80;
const GAP = 8;
const UNIT_TOP = 54;
const UNIT_HIGH = 58;
const BUS_TOP = UNIT_TOP + UNIT_HIGH + 14;
const BANK_TOP = 200;

interface BusProps {
  readonly stack: Stack;
  /** Left edge of each unit in the picture. */
  readonly leftOf: (unitId: string) => number;
}

/** The parallel bus as it is plugged: a cable from socket to socket, a bar where it is terminated. */
function Bus({ stack, leftOf }: BusProps) {
  return (
    <g fontSize={9.5} fill="var(--quiet)">
      {(stack.busLinks ?? []).map((link, index) => {
        const from = leftOf(link.fromUnitId) + WIDE - 16;
        const to = leftOf(link.toUnitId) + 16;
        const y = BUS_TOP + 8 + (Math.abs(to - from) > WIDE ? 9 + (index % 2) * 4 : 0);
        return (
          <g key={link.id}>
            <path
              d={`M ${from} ${UNIT_TOP + UNIT_HIGH} V ${y} H ${to} V ${UNIT_TOP + UNIT_HIGH}`}
              fill="none"
              stroke="var(--touch)"
              strokeWidth={1.8}
            />
            <title>{`${link.fromPort} to ${link.toPort}`}</title>
          </g>
        );
      })}
      {(stack.busLinks ?? []).map((link) => (
        <g key={link.id} fontSize={10} fill="var(--quiet)">
          <text x={leftOf(link.fromUnitId) + WIDE - 4} y={UNIT_TOP + UNIT_HIGH - 7} textAnchor="end">
            {link.fromPort}
          </text>
          <text x={leftOf(link.toUnitId) + 4} y={UNIT_TOP + UNIT_HIGH - 7}>
            {link.toPort}
          </text>
        </g>
      ))}
      {(stack.terminated ?? []).map((id) => (
        <g key={id}>
          <rect
            x={leftOf(id) + WIDE / 2 - 22}
            y={UNIT_TOP + UNIT_HIGH - 3}
            width={44}
            height={6}
            fill="var(--touch)"
          />
          <title>terminator</title>
        </g>
      ))}
    </g>
  );
}

/** The set as it hangs together: output lines above, units below them, the battery bar, and the modules under it. */
export function StackPicture({ installation, compiled }: StackPictureProps) {
  const modeId = useJob((store) => store.modeId);
  const { stack } = compiled;
  const lines = installation.supply.known ? installation.supply.value.lines : [];
  const lost = installation.modes.find((mode) => mode.id === modeId)?.lostUnit;
  const bank = compiled.bank.known && compiled.bank.value !== 'none' ? compiled.bank.value : undefined;
  const inSeries = bank?.type.joining === 'series';
  const modules = stack.bank === undefined || stack.bank === 'none' ? [] : stack.bank.modules;
  // Modules side by side have a picture of their own below, with their currents.
  const drawn = inSeries ? modules : [];
  const ordered = [...stack.units].sort((a, b) => (a.line ?? '').localeCompare(b.line ?? ''));
  const fed =
    installation.supply.known && stack.arrangement !== undefined
      ? unitLines(stack, stack.arrangement, installation.supply.value)
      : undefined;
  const leftOf = (unitId: string): number =>
    GAP +
    Math.max(
      0,
      ordered.findIndex((unit) => unit.id === unitId),
    ) *
      (WIDE + GAP);
  const width = Math.max(ordered.length, 3) * (WIDE + GAP) + GAP;
  const perRow = Math.max(1, Math.floor((width - GAP) / 58));
  const rows = Math.ceil(drawn.length / perRow);
  const height = BANK_TOP + 4 + rows * 44;
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      className="w-full"
      style={{ maxWidth: width, minWidth: Math.min(width, 360) }}
      role="img"
      aria-label={`${stack.name}: ${stack.units.length} units on ${lines.join(', ')}, ${modules.length} battery modules`}
    >
      {lines.map((line, index) => (
        <g key={line}>
          <line
            x1={26}
            x2={width - GAP}
            y1={10 + index * 13}
            y2={10 + index * 13}
            stroke="var(--ink)"
            strokeWidth={1.6}
            strokeDasharray={['none', '9 3', '3 3'][index]}
          />
          <text x={2} y={14 + index * 13} fontSize={11} fill="var(--quiet)">
            {line}
          </text>
        </g>
      ))}
      {ordered.map((unit, index) => {
        const x = GAP + index * (WIDE + GAP);
        const isLost = lost?.stackId === stack.id && lost.unitId === unit.id;
        const own = fed?.known === true ? fed.value.get(unit.id) : undefined;
        const at =
          own ?? (unit.line === undefined ? lines.map((_, line) => line) : [lines.indexOf(unit.line)]);
        return (
          <g key={unit.id} opacity={isLost ? 0.45 : 1}>
            {at.map((line, step) => (
              <g key={line}>
                <line
                  x1={x + 22 + step * 18}
                  x2={x + 22 + step * 18}
                  y1={10 + line * 13}
                  y2={UNIT_TOP}
                  stroke="var(--ink)"
                  strokeWidth={1.4}
                />
                <circle cx={x + 22 + step * 18} cy={10 + line * 13} r={3} fill="var(--ink)" />
              </g>
            ))}
            <rect
              x={x}
              y={UNIT_TOP}
              width={WIDE}
              height={UNIT_HIGH}
              rx={3}
              fill="var(--sheet)"
              stroke={isLost ? 'var(--over)' : 'var(--ink)'}
              strokeWidth={1.6}
              strokeDasharray={isLost ? '5 4' : 'none'}
            />
            <text
              x={x + WIDE / 2}
              y={UNIT_TOP + 20}
              textAnchor="middle"
              fontSize={13}
              fontWeight={600}
              fill="var(--ink)"
            >
              Unit {stack.units.indexOf(unit) + 1}
            </text>
            <text x={x + WIDE / 2} y={UNIT_TOP + 36} textAnchor="middle" fontSize={11} fill="var(--quiet)">
              {isLost ? 'lost' : stack.hostUnitId === unit.id ? 'host' : (unit.firmware ?? 'firmware ?')}
            </text>
            <line
              x1={x + WIDE / 2}
              x2={x + WIDE / 2}
              y1={UNIT_TOP + UNIT_HIGH}
              y2={BANK_TOP - 22}
              stroke="var(--ink)"
              strokeWidth={2.4}
            />
          </g>
        );
      })}
      <Bus stack={stack} leftOf={leftOf} />
      {(isOwnBank(stack) ? ordered.map((unit) => leftOf(unit.id)) : [GAP]).map((left) => (
        <line
          key={left}
          x1={left}
          x2={isOwnBank(stack) ? left + WIDE : width - GAP}
          y1={BANK_TOP - 22}
          y2={BANK_TOP - 22}
          stroke="var(--ink)"
          strokeWidth={5}
        />
      ))}
      <text x={GAP} y={BANK_TOP - 6} fontSize={11} fill="var(--quiet)">
        {bank === undefined
          ? 'Battery not known'
          : `${isOwnBank(stack) ? 'a bank like this for each unit: ' : ''}${bank.moduleCount} ${inSeries ? 'modules in series' : 'modules side by side'}, ${Math.round(bank.nominalV * 10) / 10} V nominal`}
      </text>
      {drawn.map((module, index) => {
        const x = GAP + (index % perRow) * 58;
        const y = BANK_TOP + 4 + Math.floor(index / perRow) * 44;
        return (
          <g key={module.id}>
            {index % perRow > 0 && (
              <line x1={x - 8} x2={x} y1={y + 18} y2={y + 18} stroke="var(--ink)" strokeWidth={2} />
            )}
            <rect x={x} y={y} width={50} height={36} rx={2} fill="var(--ground)" stroke="var(--edge)" />
            <text x={x + 25} y={y + 23} textAnchor="middle" fontSize={12} fill="var(--ink)">
              {index + 1}
            </text>
          </g>
        );
      })}
    </svg>
  );
}
