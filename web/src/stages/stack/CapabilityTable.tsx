import {
  type Capability,
  capabilityWithout,
  type CompiledStack,
  formatNumber,
  formatQuantity,
  type Installation,
} from '@bastion/core';

interface CapabilityTableProps {
  readonly installation: Installation;
  readonly compiled: CompiledStack;
}

interface Column {
  readonly key: string;
  readonly title: string;
  readonly capability: Capability;
}

/** Each distinct outcome of losing a unit once: paralleled units on one line are alike. */
function columnsOf(compiled: CompiledStack): Column[] {
  const whole = capabilityWithout(compiled);
  if (!whole.known) return [];
  const columns: Column[] = [{ key: 'all', title: 'All units', capability: whole.value }];
  const seen = new Set<string>();
  compiled.stack.units.forEach((unit, index) => {
    const without = capabilityWithout(compiled, unit.id);
    if (!without.known) return;
    const outcome = without.value.perLineVa.join('/');
    if (seen.has(outcome)) return;
    seen.add(outcome);
    const title = `Less unit ${index + 1}${unit.line === undefined ? '' : ` (${unit.line})`}`;
    columns.push({ key: unit.id, title, capability: without.value });
  });
  return columns;
}

/** One row a line: what it can carry at a multiple of its usable capacity, with all units and with each lost. */
function LineRows({
  lines,
  columns,
  multiple,
}: {
  readonly lines: readonly string[];
  readonly columns: readonly Column[];
  readonly multiple: number;
}) {
  return lines.map((line, index) => (
    <tr key={line} className="border-t border-rule">
      <th className="py-1 text-left font-semibold">{line}</th>
      {columns.map(({ key, capability }) => {
        const va = capability.perLineVa[index] ?? 0;
        return (
          <td key={key} className={`px-2 ${va === 0 ? 'font-semibold text-over' : ''}`}>
            {formatQuantity(multiple * va, 'VA')}
          </td>
        );
      })}
    </tr>
  ));
}

/** What each line can carry for long and by the overload curve, with all units and with one lost. */
export function CapabilityTable({ installation, compiled }: CapabilityTableProps) {
  const columns = columnsOf(compiled);
  const lines = installation.supply.known ? installation.supply.value.lines : [];
  const curve = compiled.type.known ? compiled.type.value.overloadCurve : [];
  if (columns.length === 0)
    return (
      <p className="text-unknown">
        Capability is not known yet: choose supply, type, arrangement and the hottest air at the equipment.
      </p>
    );
  return (
    <div className="relative overflow-x-auto">
      <table className="condensed w-full text-right">
        <thead>
          <tr className="text-quiet">
            <th className="text-left font-medium">Usable, each line</th>
            {columns.map((column) => (
              <th key={column.key} className="px-2 font-medium whitespace-nowrap">
                {column.title}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          <LineRows lines={lines} columns={columns} multiple={1} />
          <tr className="border-t border-edge">
            <th className="py-1 text-left font-semibold">Whole set</th>
            {columns.map(({ key, capability }) => (
              <td key={key} className="px-2 font-semibold">
                {formatQuantity(capability.totalVa, 'VA')}
              </td>
            ))}
          </tr>
        </tbody>
        {curve.map(({ multiple, maxS }) => (
          <tbody key={multiple}>
            <tr className="border-t border-edge text-quiet">
              <th className="py-1 text-left font-medium" colSpan={columns.length + 1} scope="colgroup">
                Up to {formatQuantity(maxS, 's')}: {formatNumber(multiple)} times
              </th>
            </tr>
            <LineRows lines={lines} columns={columns} multiple={multiple} />
          </tbody>
        ))}
      </table>
    </div>
  );
}
