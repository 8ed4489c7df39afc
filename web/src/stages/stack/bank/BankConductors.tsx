import { type Bank, type BankCircuit, formatQuantity } from '@bastion/core';
import {
  type BankLayout,
  BAR_BOTTOM,
  BAR_TOP,
  groupsOf,
  isChain,
  MODULE_BOTTOM,
  MODULE_TOP,
} from './bankLayout.ts';

const PLUS = { stroke: 'var(--ink)', strokeWidth: 2.2, fill: 'none' };
const MINUS = { ...PLUS, strokeDasharray: '8 3' };

interface ConductorsProps {
  readonly bank: Bank;
  readonly circuit: BankCircuit;
  readonly layout: BankLayout;
  readonly onLead: (moduleId: string) => void;
}

type CircuitModule = BankCircuit['modules'][number];

/** The length that most leads have: where there is little room only the others are labelled. */
function usualLength(modules: readonly CircuitModule[]): number | undefined {
  const counts = new Map<number, number>();
  for (const { leadM } of modules) if (leadM !== undefined) counts.set(leadM, (counts.get(leadM) ?? 0) + 1);
  return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0];
}

interface LeadProps {
  readonly module: CircuitModule;
  readonly words: string;
  readonly plus: string;
  readonly minus: string;
  readonly labelX: number;
  readonly labelY: number;
  readonly isLabelled: boolean;
  readonly onLead: (moduleId: string) => void;
}

/** Both poles of a lead; chosen, it can be given another length. */
function Lead({ module, words, plus, minus, labelX, labelY, isLabelled, onLead }: LeadProps) {
  const length = module.leadM === undefined ? '' : formatQuantity(module.leadM, 'm');
  return (
    <g
      role="button"
      tabIndex={0}
      aria-label={`${words}: ${length}. Change it`}
      className="picture-part"
      onClick={() => onLead(module.id)}
      onKeyDown={(event) => {
        if (event.key !== 'Enter' && event.key !== ' ') return;
        event.preventDefault();
        onLead(module.id);
      }}
    >
      <title>{`${words}: ${length}`}</title>
      <rect x={labelX - 24} y={labelY - 12} width={48} height={MODULE_TOP - labelY + 12} fill="transparent" />
      <path className="wire" d={plus} {...PLUS} />
      <path className="wire" d={minus} {...MINUS} />
      {isLabelled && (
        <text x={labelX} y={labelY} textAnchor="middle" fontSize={10.5} fill="var(--touch)">
          {length}
        </text>
      )}
    </g>
  );
}

function Bars({ layout, count, segment }: { layout: BankLayout; count: number; segment: string }) {
  const first = layout.centre(0);
  const last = layout.centre(count - 1);
  const bar = { x1: first - 9, x2: last + 9, stroke: 'var(--ink)', strokeWidth: 7 };
  return (
    <g aria-hidden="true">
      <line {...bar} y1={BAR_TOP} y2={BAR_TOP} />
      <line {...bar} y1={BAR_BOTTOM} y2={BAR_BOTTOM} strokeDasharray="14 3" />
      <text x={first - 9} y={BAR_BOTTOM + 18} fontSize={11} fill="var(--quiet)">
        + bar above, − bar below{segment}
      </text>
    </g>
  );
}

/** Everything that joins the modules of a bank, as it lies. */
export function BankConductors({ bank, circuit, layout, onLead }: ConductorsProps) {
  const { modules } = circuit;
  const { centre } = layout;
  const chained = isChain(bank, circuit);
  const inGroups = bank.joining === 'groups-on-bar';
  const usual = usualLength(modules);
  const isLabelled = ({ leadM }: CircuitModule): boolean => layout.kind !== 'narrow' || leadM !== usual;
  const segment =
    bank.barSegment?.areaMm2 === undefined || bank.barSegment.lengthM === undefined
      ? ''
      : `: ${bank.barSegment.areaMm2} mm², ${bank.barSegment.lengthM} m between places`;
  return (
    <>
      {modules.map((module, index) => {
        if (module.leadM === undefined) return null;
        const [here, next] = [
          centre(module.number - 1),
          centre((modules[index + 1]?.number ?? module.number + 1) - 1),
        ];
        const onBar = !chained && !inGroups;
        return (
          <Lead
            key={module.id}
            module={module}
            words={
              onBar
                ? `Leads of module ${module.number} to the bars`
                : `Lead from module ${module.number} to ${modules[index + 1]?.number ?? ''}`
            }
            plus={
              onBar
                ? `M${here} ${BAR_TOP} V${MODULE_TOP}`
                : `M${here} ${MODULE_TOP} V${MODULE_TOP - 15} H${next} V${MODULE_TOP}`
            }
            minus={
              onBar
                ? `M${here} ${MODULE_BOTTOM} V${BAR_BOTTOM}`
                : `M${here} ${MODULE_BOTTOM} v14 H${next} v-14`
            }
            labelX={onBar ? here + (layout.kind === 'narrow' ? 0 : 17) : (here + next) / 2}
            labelY={onBar ? MODULE_TOP - 9 : MODULE_TOP - 19}
            isLabelled={isLabelled(module)}
            onLead={onLead}
          />
        );
      })}
      {inGroups &&
        groupsOf(bank, bank.modules.length).map(({ first, last }) => (
          <g key={first} aria-hidden="true">
            <path d={`M${centre(first)} ${MODULE_TOP} V${BAR_TOP}`} {...PLUS} />
            <path d={`M${centre(last)} ${MODULE_BOTTOM} V${BAR_BOTTOM}`} {...MINUS} />
          </g>
        ))}
      {!chained && <Bars layout={layout} count={bank.modules.length} segment={segment} />}
    </>
  );
}
