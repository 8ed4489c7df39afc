import { analysisCauses } from '@bastion/core';
import { Command } from 'cmdk';
import { Dialog } from 'radix-ui';
import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { downloadDesign } from '../state/documentFile.ts';
import { useDrawer } from '../state/drawer.ts';
import { useJob, useOpenJob } from '../state/job.ts';
import { findEntries, type PaletteEntry, paletteEntries } from './palette.ts';

interface PaletteProps {
  readonly onClose: () => void;
}

function useRun(onClose: () => void): (entry: PaletteEntry) => void {
  const { design, analysis } = useOpenJob();
  const { undo, redo, chooseMode } = useJob();
  const open = useDrawer((store) => store.open);
  const navigate = useNavigate();
  const act = (action: NonNullable<PaletteEntry['action']>): void => {
    if (action === 'undo') undo();
    else if (action === 'redo') redo();
    else if (action === 'export') downloadDesign(design);
    else setTimeout(() => window.print(), 0);
  };
  return (entry) => {
    onClose();
    if (entry.to !== undefined) void navigate(entry.to);
    else if (entry.mode !== undefined) chooseMode(entry.mode);
    else if (entry.action !== undefined) act(entry.action);
    else {
      const cause = analysisCauses(analysis).find(({ id }) => id === entry.causeId);
      if (cause !== undefined) open(cause.worst);
    }
  };
}

/** Go to a stage or a thing, do something, find a circuit, a unit or a cause: all from the keyboard. */
export function Palette({ onClose }: PaletteProps) {
  const job = useOpenJob();
  const [typed, setTyped] = useState('');
  const entries = useMemo(() => paletteEntries(job), [job]);
  const found = findEntries(entries, typed);
  const groups = [...new Set(found.map(({ group }) => group))];
  const run = useRun(onClose);
  return (
    <Dialog.Root open onOpenChange={(isOpen) => !isOpen && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-ink/25 dark:bg-black/50" />
        <Dialog.Content
          className="sheet fixed top-[10vh] left-1/2 z-40 flex max-h-[76vh] w-[min(36rem,94vw)] -translate-x-1/2 flex-col shadow-lg"
          aria-describedby={undefined}
        >
          <Dialog.Title className="sr-only">Go to, do, find</Dialog.Title>
          <Command shouldFilter={false} loop label="Go to, do, find" className="flex min-h-0 flex-col">
            <Command.Input
              className="input m-2 w-auto! text-[16px]"
              placeholder="Go to, do, or find a circuit, unit or cause"
              value={typed}
              onValueChange={setTyped}
            />
            <Command.List className="min-h-0 overflow-y-auto px-2 pb-2">
              <Command.Empty className="p-3 text-quiet">
                Nothing here is called that. Try a part of a name, or another word.
              </Command.Empty>
              {groups.map((group) => (
                <Command.Group
                  key={group}
                  heading={group}
                  className="[&_[cmdk-group-heading]]:px-2 [&_[cmdk-group-heading]]:pt-2 [&_[cmdk-group-heading]]:text-[12px] [&_[cmdk-group-heading]]:font-semibold [&_[cmdk-group-heading]]:text-quiet"
                >
                  {found
                    .filter((entry) => entry.group === group)
                    .map((entry) => (
                      <Command.Item
                        key={entry.key}
                        value={entry.key}
                        className="flex min-h-9 cursor-default items-center gap-3 rounded-sm px-2 py-1 data-[selected=true]:bg-chosen data-[selected=true]:outline data-[selected=true]:outline-touch"
                        onSelect={() => run(entry)}
                      >
                        <span className="min-w-0 flex-1 truncate">{entry.title}</span>
                        {entry.hint !== undefined && (
                          <span className="text-[12.5px] text-quiet">{entry.hint}</span>
                        )}
                      </Command.Item>
                    ))}
                </Command.Group>
              ))}
            </Command.List>
          </Command>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
