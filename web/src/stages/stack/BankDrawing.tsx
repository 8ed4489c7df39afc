import { type Bank, type BankCircuit, type BankShare, formatQuantity, type Stack } from '@bastion/core';

const MODULE_WIDE = 78;
const MODULE_HIGH = 74;
const GAP = 30;
const LEFT = 20;
const UNIT_TOP = 6;
const UNIT_HIGH = 34;
const BAR_TOP = 92;
const MODULE_TOP = 122;
const BAR_BOTTOM = MODULE_TOP + MODULE_HIGH + 30;

type Solved = Extract<BankShare, { kind: 'solved' }>;

interface BankDrawingProps {
  readonly stack: Stack;
  readonly bank: Bank;
  readonly circuit: BankCircuit;
  readonly share: Solved;
  readonly tight: number;
  readonly limit: number;
  readonly onModule: (moduleId: string) => void;
  readonly onLead: () => void;
}

/** The picture shrinks so far; then it scrolls, so that its figures stay legible. */
const LEAST_SCALE = 0.85;

const centre = (index: number): number => LEFT + index * (MODULE_WIDE + GAP) + MODULE_WIDE / 2;

/** Departure from the mean as people say it: "+4.2 %". */
const departureWords = (share: number): string =>
  `${share >= 1 ? '+' : '−'}${Math.abs(100 * (share - 1)).toFixed(1)} %`;

function ModuleBox({
  index,
  one,
  tight,
  limit,
  onModule,
}: {
  readonly index: number;
  readonly one: Solved['modules'][number];
  readonly tight: number;
  readonly limit: number;
  readonly onModule: (moduleId: string) => void;
}) {
  const { module, currentA, share } = one;
  const off = Math.abs(share - 1);
  const state = share === 0 ? 'within' : off > limit ? 'over' : off > tight ? 'tight' : 'within';
  const ink = state === 'within' ? 'var(--within)' : state === 'tight' ? 'var(--tight)' : 'var(--over)';
  const x = centre(index) - MODULE_WIDE / 2;
  const filled = Math.min(1, Math.max(0, share) / 1.5) * (MODULE_HIGH - 4);
  const mean = MODULE_TOP + MODULE_HIGH - 2 - (MODULE_HIGH - 4) / 1.5;
  const words = `Module ${module.number}: ${formatQuantity(currentA, 'A')}, ${share === 0 ? 'nothing is drawn' : `${departureWords(share)} from the mean`}, ${formatQuantity(one.lossW, 'W')} of heat, ${state}`;
  const go = (): void => onModule(module.id);
  return (
    <g
      role="button"
      tabIndex={0}
      aria-label={words}
      className="wall-thing"
      style={{ cursor: 'pointer' }}
      onClick={go}
      onKeyDown={(event) => {
        if (event.key === 'Enter' || event.key === ' ') {
          event.preventDefault();
          go();
        }
      }}
    >
      <title>{words}</title>
      <rect x={x + 2} y={MODULE_TOP + MODULE_HIGH - 2 - filled} width={12} height={filled} fill={ink} />
      <line x1={x} x2={x + 18} y1={mean} y2={mean} stroke="var(--ink)" strokeWidth={2} />
      <text x={x + 24} y={MODULE_TOP + 20} fontSize={12} fill="var(--quiet)">
        {module.number}
        {state === 'over' ? ' ✕' : state === 'tight' ? ' !' : ''}
      </text>
      <text
        x={x + 24}
        y={MODULE_TOP + 42}
        fontSize={15}
        fontWeight={650}
        fill={state === 'over' ? ink : 'var(--ink)'}
      >
        {currentA.toFixed(1)} A
      </text>
      <text x={x + 24} y={MODULE_TOP + 60} fontSize={11.5} fill={state === 'within' ? 'var(--quiet)' : ink}>
        {share === 0 ? '' : departureWords(share)}
      </text>
      <rect
        x={x}
        y={MODULE_TOP}
        width={MODULE_WIDE}
        height={MODULE_HIGH}
        rx={2}
        fill="none"
        stroke={state === 'within' ? 'var(--ink)' : ink}
        strokeWidth={state === 'over' ? 2.6 : 1.4}
        strokeDasharray={state === 'tight' ? '6 3' : undefined}
      />
    </g>
  );
}

const wire = { stroke: 'var(--ink)', strokeWidth: 2.2, fill: 'none' };

/** Conductors between neighbouring modules, at their top (plus) and bottom (minus). */
function ChainLinks({
  from,
  to,
  label,
  onLead,
}: {
  from: number;
  to: number;
  label: string;
  onLead: () => void;
}) {
  const pairs = Array.from({ length: Math.max(0, to - from) }, (_, at) => from + at);
  return (
    <>
      {pairs.map((index) => {
        const [a, b] = [centre(index), centre(index + 1)];
        return (
          <g key={index} className="cursor-pointer" onClick={onLead}>
            <path d={`M${a} ${MODULE_TOP} V${BAR_TOP + 14} H${b} V${MODULE_TOP}`} {...wire} />
            <path d={`M${a} ${MODULE_TOP + MODULE_HIGH} v14 H${b} v-14`} {...wire} strokeDasharray="8 3" />
            <text x={(a + b) / 2} y={BAR_TOP + 10} textAnchor="middle" fontSize={10.5} fill="var(--touch)">
              {label}
            </text>
          </g>
        );
      })}
    </>
  );
}

function Bars({ places, segment }: { readonly places: readonly number[]; readonly segment: string }) {
  const first = places[0] ?? LEFT;
  const last = places.at(-1) ?? first;
  return (
    <g aria-hidden="true">
      <line x1={first - 14} x2={last + 14} y1={BAR_TOP} y2={BAR_TOP} stroke="var(--ink)" strokeWidth={7} />
      <line
        x1={first - 14}
        x2={last + 14}
        y1={BAR_BOTTOM}
        y2={BAR_BOTTOM}
        stroke="var(--ink)"
        strokeWidth={7}
        strokeDasharray="14 3"
      />
      <text x={last + 14} y={BAR_TOP - 8} textAnchor="end" fontSize={11} fill="var(--quiet)">
        + bar {segment}
      </text>
      <text x={first - 14} y={BAR_BOTTOM + 18} fontSize={11} fill="var(--quiet)">
        − bar
      </text>
    </g>
  );
}

/** Where each inverter takes its plus and its minus: places counted along the picture. */
function tapPlaces(bank: Bank, stack: Stack, count: number): { plus: number; minus: number }[] {
  const size = bank.joining === 'groups-on-bar' ? (bank.groupSize ?? 1) : 1;
  const at = (place: number | undefined): number =>
    Math.min(count - 1, Math.max(0, ((place ?? 1) - 1) * size + (size - 1) / 2));
  return stack.units.map((unit) =>
    bank.joining === 'chain-same-end'
      ? { plus: 0, minus: 0 }
      : bank.joining === 'chain-diagonal'
        ? { plus: 0, minus: count - 1 }
        : { plus: at(unit.barPlace), minus: at(unit.barPlace) },
  );
}

function Inverters({
  stack,
  bank,
  share,
  count,
}: {
  stack: Stack;
  bank: Bank;
  share: Solved;
  count: number;
}) {
  const isChain = bank.joining?.startsWith('chain') === true || count === 1;
  const taps = tapPlaces(bank, stack, count);
  const width = Math.max(
    70,
    Math.min(104, (count * (MODULE_WIDE + GAP)) / Math.max(1, stack.units.length) - 8),
  );
  return (
    <>
      {stack.units.map((unit, index) => {
        const tap = taps[index] ?? { plus: 0, minus: 0 };
        const found = share.taps[index];
        const x = LEFT + index * (width + 8);
        const plusX = centre(tap.plus) + (isChain ? -14 + index * 5 : 0);
        return (
          <g key={unit.id}>
            <path
              d={`M${x + width / 2} ${UNIT_TOP + UNIT_HIGH} V${56 + index * 4} H${plusX} V${isChain ? MODULE_TOP : BAR_TOP}`}
              {...wire}
              strokeWidth={1.7}
            />
            <rect
              x={x}
              y={UNIT_TOP}
              width={width}
              height={UNIT_HIGH}
              rx={2}
              fill="var(--sheet)"
              stroke="var(--ink)"
              strokeWidth={1.5}
            />
            <text x={x + 6} y={UNIT_TOP + 14} fontSize={11.5} fontWeight={600} fill="var(--ink)">
              Unit {index + 1}
            </text>
            <text x={x + 6} y={UNIT_TOP + 28} fontSize={10.5} fill="var(--quiet)">
              {found === undefined ? '' : `${found.currentA.toFixed(0)} A, ${found.voltageV.toFixed(2)} V`}
            </text>
          </g>
        );
      })}
      {isChain && (
        <text
          x={centre(taps[0]?.minus ?? 0)}
          y={BAR_BOTTOM + 16}
          textAnchor={(taps[0]?.minus ?? 0) === 0 ? 'start' : 'end'}
          fontSize={11.5}
          fill="var(--quiet)"
        >
          − of the inverters here
        </text>
      )}
      {isChain && (
        <line
          x1={centre(taps[0]?.minus ?? 0)}
          x2={centre(taps[0]?.minus ?? 0)}
          y1={MODULE_TOP + MODULE_HIGH}
          y2={BAR_BOTTOM + 2}
          {...wire}
          strokeDasharray="8 3"
        />
      )}
    </>
  );
}

/** The bank as it lies: modules with their current, the conductors that join them, and where the inverters tap it. */
export function BankDrawing({
  stack,
  bank,
  circuit,
  share,
  tight,
  limit,
  onModule,
  onLead,
}: BankDrawingProps) {
  const count = circuit.modules.length;
  const width = LEFT * 2 + Math.max(count * (MODULE_WIDE + GAP), stack.units.length * 78);
  const leadWords = bank.lead === undefined ? '' : `${bank.lead.lengthM} m`;
  const isChain = bank.joining?.startsWith('chain') === true || count === 1;
  const size = bank.groupSize ?? 1;
  const groups = Array.from({ length: Math.ceil(count / size) }, (_, at) => ({
    first: at * size,
    last: Math.min(count, (at + 1) * size) - 1,
  }));
  const inGroups = bank.joining === 'groups-on-bar';
  const segment =
    bank.barSegment === undefined ? '' : `${bank.barSegment.areaMm2} mm², ${bank.barSegment.lengthM} m apart`;
  return (
    <svg
      viewBox={`0 0 ${width} ${BAR_BOTTOM + 26}`}
      style={{ width, maxWidth: '100%', minWidth: width * LEAST_SCALE }}
      role="group"
      aria-label="The bank as it lies"
    >
      {isChain && <ChainLinks from={0} to={count - 1} label={leadWords} onLead={onLead} />}
      {inGroups &&
        groups.map(({ first, last }) => (
          <g key={first}>
            <ChainLinks from={first} to={last} label={leadWords} onLead={onLead} />
            <path d={`M${centre(first)} ${MODULE_TOP} V${BAR_TOP}`} {...wire} />
            <path
              d={`M${centre(last)} ${MODULE_TOP + MODULE_HIGH} V${BAR_BOTTOM}`}
              {...wire}
              strokeDasharray="8 3"
            />
          </g>
        ))}
      {!isChain &&
        !inGroups &&
        circuit.modules.map((module, index) => (
          <g key={module.id} className="cursor-pointer" onClick={onLead}>
            <path d={`M${centre(index)} ${BAR_TOP} V${MODULE_TOP}`} {...wire} />
            <path
              d={`M${centre(index)} ${MODULE_TOP + MODULE_HIGH} V${BAR_BOTTOM}`}
              {...wire}
              strokeDasharray="8 3"
            />
            <text x={centre(index) + 5} y={MODULE_TOP - 8} fontSize={10.5} fill="var(--touch)">
              {bank.modules.find((one) => one.id === module.id)?.lead?.lengthM ?? bank.lead?.lengthM} m
            </text>
          </g>
        ))}
      {!isChain && <Bars places={circuit.modules.map((_, index) => centre(index))} segment={segment} />}
      <Inverters stack={stack} bank={bank} share={share} count={count} />
      {share.modules.map((one, index) => (
        <ModuleBox
          key={one.module.id}
          index={index}
          one={one}
          tight={tight}
          limit={limit}
          onModule={onModule}
        />
      ))}
    </svg>
  );
}
