import { MATRIX_COLUMNS, type MatrixCell, type MatrixColumn, type MatrixRow } from '@bastion/core';
import { StateMark } from '../../ui/StateMark.tsx';

const COLUMN_WORDS: Readonly<Record<MatrixColumn, string>> = {
  grid: 'Grid terminals',
  boards: 'Backed-up boards',
  generator: 'Generator',
  neutral: 'Neutral',
  earth: 'Earth',
};

interface MatrixProps {
  readonly rows: readonly MatrixRow[];
  readonly modeId: string;
  readonly chosen: string | undefined;
  readonly onPick: (modeId: string, column: MatrixColumn, cell: MatrixCell) => void;
}

const sameCells = (a: MatrixRow, b: MatrixRow): boolean =>
  MATRIX_COLUMNS.every((column) => a.cells[column].text === b.cells[column].text);

/** Rows of lost units that say the same stand as one; the chosen mode always has a row of its own. */
function folded(
  rows: readonly MatrixRow[],
  modeId: string,
): { readonly row: MatrixRow; readonly label: string }[] {
  const lost = rows.filter(({ mode }) => mode.kind === 'unit-lost');
  const [first] = lost;
  const others = lost.filter(({ mode }) => mode.id !== modeId);
  const isOne = first !== undefined && lost.length > 1 && lost.every((row) => sameCells(row, first));
  return rows.flatMap((row) => {
    if (!isOne || row.mode.kind !== 'unit-lost' || row.mode.id === modeId)
      return [{ row, label: row.mode.label }];
    const rest = others.length === lost.length ? 'Any one unit lost' : 'Any other unit lost';
    return row === others[0] ? [{ row, label: rest }] : [];
  });
}

/** Mode by mode what is live and how the neutral is bonded. A cell shows its way on the drawing. */
export function ModeMatrix({ rows, modeId, chosen, onPick }: MatrixProps) {
  return (
    <div className="sheet relative overflow-x-auto" tabIndex={0} role="region" aria-label="Operating modes">
      <table className="condensed w-full min-w-[600px]">
        <thead>
          <tr className="text-left text-quiet">
            <th className="px-3 py-1.5 font-normal">Mode</th>
            {MATRIX_COLUMNS.map((column) => (
              <th key={column} className="px-2.5 font-normal whitespace-nowrap">
                {COLUMN_WORDS[column]}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {folded(rows, modeId).map(({ row: { mode, cells }, label }) => (
            <tr key={mode.id} className={`border-t border-rule ${mode.id === modeId ? 'bg-chosen' : ''}`}>
              <th scope="row" className="px-3 text-left font-semibold whitespace-nowrap">
                {label}
              </th>
              {MATRIX_COLUMNS.map((column) => {
                const cell = cells[column];
                const key = `${mode.id} ${column}`;
                return (
                  <td key={column} className="px-1">
                    <button
                      type="button"
                      className={`flex min-h-7 w-full items-center gap-1.5 rounded-sm px-1.5 text-left whitespace-nowrap hover:bg-ground ${chosen === key ? 'outline-2 outline-touch' : ''}`}
                      aria-pressed={chosen === key}
                      onClick={() => onPick(mode.id, column, cell)}
                    >
                      {cell.state !== 'plain' && <StateMark state={cell.state} silent />}
                      <span className={cell.state === 'over' ? 'font-semibold text-over' : ''}>
                        {cell.text}
                      </span>
                    </button>
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
