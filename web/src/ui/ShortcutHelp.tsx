import { Dialog } from 'radix-ui';

const SHORTCUTS: readonly (readonly [string, string])[] = [
  ['Ctrl K', 'Go to, do, or find a circuit, unit or cause'],
  ['Alt 1 … Alt 8', 'Go to a stage'],
  ['Ctrl Z', 'Undo'],
  ['Ctrl Shift Z, Ctrl Y', 'Do again'],
  ['Arrows, Tab, Home, End', 'Loads: move from cell to cell'],
  ['Enter, F2, or type', 'Loads: edit the cell; Enter takes it over, Esc leaves it as it was'],
  ['Delete', 'Loads: empty the cell: not known'],
  ['Alt Enter', 'Loads: add an item below'],
  ['Alt Shift Enter', 'Loads: add a circuit below'],
  ['Shift arrows, Ctrl A', 'Loads: select a range of cells, or all'],
  ['Ctrl C, Ctrl V', 'Loads: copy the selection, paste cells of a spreadsheet'],
  ['Ctrl D', 'Loads: fill the selection down from its first row, or the cell from the one above'],
  ['Ctrl Shift D', 'Loads: duplicate the row'],
  ['Ctrl Delete', 'Loads: delete the row'],
  ['← →', 'Partitions: move the circuit to the board beside'],
  ['1 2 3', 'Partitions: put a one-line circuit on L1, L2 or L3'],
  ['?', 'This list'],
];

export function ShortcutHelp({
  isOpen,
  onClose,
}: {
  readonly isOpen: boolean;
  readonly onClose: () => void;
}) {
  return (
    <Dialog.Root open={isOpen} onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-ink/25 dark:bg-black/50" />
        <Dialog.Content
          className="sheet fixed top-[12%] left-1/2 z-40 max-h-[76vh] w-[min(34rem,92vw)] -translate-x-1/2 overflow-y-auto p-5"
          aria-describedby={undefined}
        >
          <Dialog.Title className="text-[17px] font-semibold">Keyboard</Dialog.Title>
          <table className="mt-3 w-full">
            <tbody>
              {SHORTCUTS.map(([keys, what]) => (
                <tr key={keys} className="border-t border-rule">
                  <th
                    scope="row"
                    className="py-1 pr-4 text-left font-mono text-[12.5px] font-normal whitespace-nowrap"
                  >
                    {keys}
                  </th>
                  <td>{what}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <Dialog.Close className="button mt-4">Close</Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
