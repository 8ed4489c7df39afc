import {
  bankOfSet,
  type CompiledStack,
  type Installation,
  isOwnBank,
  modesOf,
  type Module,
  type Stack,
  type Unit,
  unitLines,
} from '@bastion/core';
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

const lineY = (index: number): number => 10 + index * 13;

/** The output lines, told apart by their pattern and letter. */
function Lines({ lines, width }: { readonly lines: readonly string[]; readonly width: number }) {
  return lines.map((line, index) => (
    <g key={line}>
      <line
        x1={26}
        x2={width - GAP}
        y1={lineY(index)}
        y2={lineY(index)}
        stroke="var(--ink)"
        strokeWidth={1.6}
        strokeDasharray={['none', '9 3', '3 3'][index]}
      />
      <text x={2} y={lineY(index) + 4} fontSize={11} fill="var(--quiet)">
        {line}
      </text>
    </g>
  ));
}

interface UnitBoxProps {
  readonly stack: Stack;
  readonly unit: Unit;
  readonly x: number;
  /** The lines that it feeds, by number. */
  readonly feeds: readonly number[];
  readonly isLost: boolean;
}

/** A unit with its nodes on the lines above and its battery lead below. */
function UnitBox({ stack, unit, x, feeds, isLost }: UnitBoxProps) {
  const middle = x + WIDE / 2;
  const nodeX = (step: number): number => x + 22 + step * 18;
  return (
    <g opacity={isLost ? 0.45 : 1}>
      {feeds.map((line, step) => (
        <g key={line}>
          <line
            x1={nodeX(step)}
            x2={nodeX(step)}
            y1={lineY(line)}
            y2={UNIT_TOP}
            stroke="var(--ink)"
            strokeWidth={1.4}
          />
          <circle cx={nodeX(step)} cy={lineY(line)} r={3} fill="var(--ink)" />
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
      <text x={middle} y={UNIT_TOP + 20} textAnchor="middle" fontSize={13} fontWeight={600} fill="var(--ink)">
        Unit {stack.units.indexOf(unit) + 1}
      </text>
      <text x={middle} y={UNIT_TOP + 36} textAnchor="middle" fontSize={11} fill="var(--quiet)">
        {isLost ? 'lost' : stack.hostUnitId === unit.id ? 'host' : (unit.firmware ?? 'firmware ?')}
      </text>
      {stack.bank !== 'none' && (
        <line
          x1={middle}
          x2={middle}
          y1={UNIT_TOP + UNIT_HIGH}
          y2={BANK_TOP - 22}
          stroke="var(--ink)"
          strokeWidth={2.4}
        />
      )}
    </g>
  );
}

function batteryWords(compiled: CompiledStack): string {
  const { stack } = compiled;
  const bank = bankOfSet(compiled);
  if (!bank.known) return 'Battery not known';
  if (bank.value === 'none') return 'No battery';
  const { type, moduleCount, nominalV } = bank.value;
  const how = type.joining === 'series' ? 'in series' : 'side by side';
  const whose = isOwnBank(stack) ? 'a bank like this for each unit: ' : '';
  return `${whose}${moduleCount} modules ${how}, ${Math.round(nominalV * 10) / 10} V nominal`;
}

/** What the units stand on: one bar, or one each. Modules side by side have a picture of their own, with their currents. */
function Battery({
  compiled,
  bars,
  width,
}: {
  readonly compiled: CompiledStack;
  readonly bars: readonly number[];
  readonly width: number;
}) {
  const { stack } = compiled;
  const modules = seriesModules(compiled);
  const perRow = perRowIn(width);
  return (
    <>
      {stack.bank !== 'none' &&
        bars.map((left) => (
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
        {batteryWords(compiled)}
      </text>
      {modules.map((module, index) => {
        const x = GAP + (index % perRow) * MODULE_PITCH;
        const y = BANK_TOP + 4 + Math.floor(index / perRow) * MODULE_ROW;
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
    </>
  );
}

const MODULE_PITCH = 58;
const MODULE_ROW = 44;
const perRowIn = (width: number): number => Math.max(1, Math.floor((width - GAP) / MODULE_PITCH));

const modulesOf = ({ stack: { bank } }: CompiledStack): readonly Module[] =>
  typeof bank === 'object' ? bank.modules : [];

function seriesModules(compiled: CompiledStack): readonly Module[] {
  const bank = bankOfSet(compiled);
  const isSeries = bank.known && bank.value !== 'none' && bank.value.type.joining === 'series';
  return isSeries ? modulesOf(compiled) : [];
}

/** The set as it hangs together: output lines above, units below them with their bus, and what they stand on. */
export function StackPicture({ installation, compiled }: StackPictureProps) {
  const modeId = useJob((store) => store.modeId);
  const { stack } = compiled;
  const { supply } = installation;
  const lines = supply.known ? supply.value.lines : [];
  const lost = modesOf(installation).find((mode) => mode.id === modeId)?.lostUnit;
  const ordered = [...stack.units].sort((a, b) => (a.line ?? '').localeCompare(b.line ?? ''));
  const fed =
    supply.known && stack.arrangement !== undefined
      ? unitLines(stack, stack.arrangement, supply.value)
      : undefined;
  const feedsOf = (unit: Unit): readonly number[] =>
    (fed?.known === true ? fed.value.get(unit.id) : undefined) ??
    (unit.line === undefined ? lines.map((_, line) => line) : [lines.indexOf(unit.line)]);
  const placeOf = (index: number): number => GAP + Math.max(0, index) * (WIDE + GAP);
  const leftOf = (unitId: string): number => placeOf(ordered.findIndex((unit) => unit.id === unitId));
  const width = Math.max(ordered.length, 3) * (WIDE + GAP) + GAP;
  const rows = Math.ceil(seriesModules(compiled).length / perRowIn(width));
  return (
    <svg
      viewBox={`0 0 ${width} ${BANK_TOP + 4 + rows * MODULE_ROW}`}
      className="w-full"
      style={{ maxWidth: width, minWidth: Math.min(width, 360) }}
      role="img"
      aria-label={`${stack.name}: ${stack.units.length} units on ${lines.join(', ')}, ${modulesOf(compiled).length} battery modules`}
    >
      <Lines lines={lines} width={width} />
      {ordered.map((unit, index) => (
        <UnitBox
          key={unit.id}
          stack={stack}
          unit={unit}
          x={placeOf(index)}
          feeds={feedsOf(unit)}
          isLost={lost?.stackId === stack.id && lost.unitId === unit.id}
        />
      ))}
      <Bus stack={stack} leftOf={leftOf} />
      <Battery
        compiled={compiled}
        bars={isOwnBank(stack) ? ordered.map((_, index) => placeOf(index)) : [GAP]}
        width={width}
      />
    </svg>
  );
}
