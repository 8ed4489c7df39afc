import type { Bank, BankCircuit, BankShare, Stack } from '@bastion/core';
import {
  type BankLayout,
  BAR_BOTTOM,
  BAR_TOP,
  isChain,
  MODULE_BOTTOM,
  MODULE_TOP,
  tapPlace,
  UNIT_HIGH,
  UNIT_TOP,
  unitPlaces,
} from './bankLayout.ts';

type Solved = Extract<BankShare, { kind: 'solved' }>;

interface BankInvertersProps {
  readonly stack: Stack;
  readonly bank: Bank;
  readonly circuit: BankCircuit;
  readonly share: Solved;
  readonly layout: BankLayout;
  readonly lostUnitId: string | undefined;
  /** The one inverter of a bank that serves no other. */
  readonly ofUnitId: string | undefined;
}

/** Room between the inverters and the bars or modules that their leads turn in. */
const TURN = UNIT_TOP + UNIT_HIGH + 8;

/** The inverters above their bank, each with what it draws and sees, on the place where it taps the bank. */
export function BankInverters({
  stack,
  bank,
  circuit,
  share,
  layout,
  lostUnitId,
  ofUnitId,
}: BankInvertersProps) {
  const count = bank.modules.length;
  const chained = isChain(bank, circuit);
  const shown = stack.units.filter((unit) => ofUnitId === undefined || unit.id === ofUnitId);
  const { wide, left } = unitPlaces(layout, shown.length);
  const minusAt = layout.centre(tapPlace(bank, shown[0]?.barPlace, count).minus);
  const isNear = minusAt < layout.width / 2;
  return (
    <>
      {shown.map((unit, index) => {
        const tap = tapPlace(bank, unit.barPlace, count);
        const found = share.taps.find((one) => one.unitId === unit.id);
        const isLost = unit.id === lostUnitId;
        const x = left(index);
        const plusX = layout.centre(tap.plus) + (chained ? -12 + index * 4 : 0);
        return (
          <g key={unit.id} opacity={isLost ? 0.5 : 1}>
            <path
              d={`M${x + wide / 2} ${UNIT_TOP + UNIT_HIGH} V${TURN + (index % 6) * 5} H${plusX} V${chained ? MODULE_TOP : BAR_TOP}`}
              stroke="var(--ink)"
              strokeWidth={1.7}
              fill="none"
            />
            <rect
              x={x}
              y={UNIT_TOP}
              width={wide}
              height={UNIT_HIGH}
              rx={2}
              fill="var(--sheet)"
              stroke={isLost ? 'var(--over)' : 'var(--ink)'}
              strokeWidth={1.5}
              strokeDasharray={isLost ? '5 4' : undefined}
            />
            <text x={x + 6} y={UNIT_TOP + 14} fontSize={11.5} fontWeight={600} fill="var(--ink)">
              Unit {stack.units.indexOf(unit) + 1}
            </text>
            <text fontSize={10.5} fill="var(--quiet)">
              <tspan x={x + 6} y={UNIT_TOP + 27}>
                {isLost ? 'lost' : found === undefined ? '' : `${found.currentA.toFixed(1)} A`}
              </tspan>
              <tspan x={x + 6} y={UNIT_TOP + 40}>
                {isLost || found === undefined ? '' : `${found.voltageV.toFixed(2)} V`}
              </tspan>
            </text>
          </g>
        );
      })}
      {chained && (
        <>
          <line
            x1={minusAt}
            x2={minusAt}
            y1={MODULE_BOTTOM}
            y2={BAR_BOTTOM + 2}
            stroke="var(--ink)"
            strokeWidth={2.2}
            strokeDasharray="8 3"
          />
          <text
            x={minusAt}
            y={BAR_BOTTOM + 16}
            textAnchor={isNear ? 'start' : 'end'}
            fontSize={11.5}
            fill="var(--quiet)"
          >
            − of the inverters here
          </text>
        </>
      )}
    </>
  );
}
