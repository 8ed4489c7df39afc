import { acShare, type CompiledStack, formatQuantity, islandBoard, magnitude } from '@bastion/core';
import { useMemo } from 'react';
import { useOpenJob } from '../../state/job.ts';

/** What each paralleled unit carries of its line through its own AC lead, in the operating mode that is looked at. */
export function UnitShares({
  compiled,
  lostUnitId,
}: {
  readonly compiled: CompiledStack;
  readonly lostUnitId: string | undefined;
}) {
  const { analysis } = useOpenJob();
  const { supply, defaults } = analysis.installation;
  const groups = useMemo(
    () => (supply.known ? acShare(compiled, supply.value, defaults.leadC.value, lostUnitId) : undefined),
    [compiled, supply, defaults, lostUnitId],
  );
  const board = islandBoard(compiled);
  if (groups?.known !== true || !supply.known || !board.known || groups.value.length === 0) return null;
  const { continuous } = board.value;
  return (
    <table className="condensed mt-2 w-full max-w-2xl text-right">
      <caption className="text-left text-quiet">Each unit’s part of its line through its AC lead</caption>
      <tbody>
        {groups.value.map(({ line, parts }) => {
          const power = continuous.knownPart[line];
          return (
            <tr key={line} className="border-t border-rule">
              <th className="text-left">{supply.value.lines[line]}</th>
              {parts.map((part) => (
                <td key={part.unit.id} className="px-2 whitespace-nowrap">
                  unit {part.number}: {formatQuantity(part.part, 'fraction')}
                  {power !== undefined && continuous.missing.length === 0 && (
                    <>, {formatQuantity(magnitude(power) * part.part, 'VA')}</>
                  )}
                </td>
              ))}
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
