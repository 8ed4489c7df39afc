import {
  type Board,
  type CompiledStack,
  formatQuantity,
  islandBoard,
  LOAD_CASE_WORDS,
  magnitude,
} from '@bastion/core';
import { useOpenJob } from '../../state/job.ts';
import { linesOf } from './tracks.ts';

type Sum = Board['expected'];

/** The load of each line in every load case, with the one that the limits are held against marked. */
export function LoadCases({ compiled }: { readonly compiled: CompiledStack }) {
  const { analysis } = useOpenJob();
  const lines = linesOf(analysis);
  const found = islandBoard(compiled);
  if (!found.known) return null;
  const board = found.value;
  const rows: { title: string; sum: Sum; counts: boolean }[] = [
    { title: 'Connected', sum: board.connected, counts: false },
    { title: 'Expected peak', sum: board.expected, counts: board.continuous.loadCase === 'expected peak' },
    ...(board.continuous.loadCase === 'expected peak'
      ? []
      : [{ title: 'Measured', sum: board.continuous, counts: true }]),
  ];
  return (
    <section aria-label={`Load cases of ${compiled.stack.name}`}>
      <table className="condensed w-full text-right">
        <thead>
          <tr className="text-quiet">
            <th className="text-left font-medium">Load case</th>
            {lines.map((line) => (
              <th key={line} className="font-medium">
                {line}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map(({ title, sum, counts }) => (
            <tr key={title} className="border-t border-rule">
              <th scope="row" className={`py-0.5 text-left ${counts ? 'font-semibold' : 'font-normal'}`}>
                {title}
                {counts && <span className="text-quiet"> counts</span>}
              </th>
              {lines.map((line, at) => {
                const value = sum.knownPart[at];
                return (
                  <td key={line} className={counts ? 'font-semibold' : ''}>
                    {value === undefined ? 'not known' : formatQuantity(magnitude(value), 'VA')}
                    {sum.missing.length > 0 && <span className="text-unknown"> +?</span>}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
      <p className="text-[12px] text-quiet">
        Continuous limits use the {LOAD_CASE_WORDS[board.continuous.loadCase]}.
      </p>
    </section>
  );
}
