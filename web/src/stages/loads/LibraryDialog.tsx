import { formatQuantity, ITEM_LIBRARY, wire } from '@bastion/core';
import { Trash2 } from 'lucide-react';
import { useEffect, useState } from 'react';
import { api, failureSentence } from '../../api/client.ts';
import { newId, useJob } from '../../state/job.ts';
import { Modal } from '../../ui/Modal.tsx';
import type { Row } from './columns.ts';
import { addItemAfter } from './rowEdits.ts';

interface EntryRowProps {
  readonly item: wire.LibraryItem;
  readonly addedBy?: string;
  readonly onItem: () => void;
  readonly onCircuit: () => void;
  readonly canItem: boolean;
  readonly onRemove?: () => void;
}

function EntryRow({ item, addedBy, onItem, onCircuit, canItem, onRemove }: EntryRowProps) {
  return (
    <tr className="border-t border-rule">
      <th scope="row" className="py-1 pr-3 text-left font-normal">
        {item.name}
        {addedBy !== undefined && <span className="text-quiet"> kept by {addedBy}</span>}
      </th>
      <td className="condensed pr-3 text-right whitespace-nowrap">
        {item.runningW === undefined ? 'not known' : formatQuantity(item.runningW, 'W')}
      </td>
      <td className="condensed pr-3 text-right whitespace-nowrap">pf {item.powerFactor ?? '—'}</td>
      <td className="condensed pr-3 whitespace-nowrap text-quiet">{item.startClass ?? 'start not known'}</td>
      <td className="py-0.5 text-right whitespace-nowrap">
        <button
          type="button"
          className="button"
          disabled={!canItem}
          aria-label={`Add here: ${item.name}`}
          onClick={onItem}
        >
          Add here
        </button>{' '}
        <button
          type="button"
          className="button"
          aria-label={`As a circuit: ${item.name}`}
          onClick={onCircuit}
        >
          As a circuit
        </button>
        {onRemove !== undefined && (
          <button
            type="button"
            className="button button-quiet"
            aria-label={`Take ${item.name} out of the library`}
            onClick={onRemove}
          >
            <Trash2 size={14} aria-hidden="true" />
          </button>
        )}
      </td>
    </tr>
  );
}

interface LibraryDialogProps {
  readonly isOpen: boolean;
  readonly here: Row | undefined;
  readonly onClose: () => void;
}

/** Things to put on circuits: the sample library, and what the firm keeps of its own. */
export function LibraryDialog({ isOpen, here, onClose }: LibraryDialogProps) {
  const change = useJob((store) => store.change);
  const [own, setOwn] = useState<readonly wire.LibraryEntry[]>([]);
  const [search, setSearch] = useState('');
  const [said, setSaid] = useState('');
  useEffect(() => {
    if (!isOpen) return;
    api.library().then(
      ({ entries, unreadable }) => {
        setOwn(entries);
        setSaid(
          unreadable.length === 0 ? '' : `Not shown, because it cannot be read: ${unreadable.join('; ')}`,
        );
      },
      (error: unknown) => setSaid(failureSentence(error)),
    );
  }, [isOpen]);
  const matches = (item: wire.LibraryItem): boolean =>
    item.name.toLowerCase().includes(search.trim().toLowerCase());
  const addItem = (item: wire.LibraryItem): void => {
    if (here === undefined) return;
    change(`Add ${item.name}`, (draft) => addItemAfter(draft, here, { ...item, id: newId('i') }));
    setSaid(`${item.name} was added to ${here.circuit.name}.`);
  };
  const addCircuit = (item: wire.LibraryItem): void => {
    change(`Add ${item.name}`, (draft) => {
      draft.circuits.push({ id: newId('c'), name: item.name, items: [{ ...item, id: newId('i') }] });
    });
    setSaid(`${item.name} was added as a circuit.`);
  };
  const keep = (row: Extract<Row, { kind: 'item' }>): void => {
    const { id: _id, ...item } = row.item;
    api.keepInLibrary(item).then(
      (entry) => {
        setOwn((now) => [...now.filter((one) => one.id !== entry.id), entry]);
        setSaid(`${item.name} is kept in the library of the firm.`);
      },
      (error: unknown) => setSaid(failureSentence(error)),
    );
  };
  const remove = (entry: wire.LibraryEntry): void => {
    api.removeFromLibrary(entry.id).then(
      () => setOwn((now) => now.filter((one) => one.id !== entry.id)),
      (error: unknown) => setSaid(failureSentence(error)),
    );
  };
  const rowFor = (item: wire.LibraryItem, entry?: wire.LibraryEntry) => (
    <EntryRow
      key={entry?.id ?? item.name}
      item={item}
      {...(entry === undefined ? {} : { addedBy: entry.addedBy, onRemove: () => remove(entry) })}
      canItem={here !== undefined}
      onItem={() => addItem(item)}
      onCircuit={() => addCircuit(item)}
    />
  );
  const groups = [
    {
      title: 'Kept by the firm',
      rows: own.filter(({ item }) => matches(item)).map((one) => rowFor(one.item, one)),
    },
    ...ITEM_LIBRARY.map(({ title, items }) => ({
      title,
      rows: items.filter(matches).map((item) => rowFor(item)),
    })),
  ];
  return (
    <Modal title="Item library" isOpen={isOpen} onClose={onClose} wide>
      <p className="text-quiet">
        Typical planning figures. A data plate or a clamp reading is better: replace them where you can.
        {here !== undefined && ` “Add here” puts an item on ${here.circuit.name}.`}
      </p>
      <div className="my-2 flex flex-wrap gap-2">
        <input
          className="input w-60!"
          type="search"
          aria-label="Search the library"
          placeholder="Search"
          value={search}
          onChange={(event) => setSearch(event.target.value)}
        />
        {here?.kind === 'item' && (
          <button type="button" className="button" onClick={() => keep(here)}>
            Keep “{here.item.name}” in the library
          </button>
        )}
      </div>
      <p role="status" className="font-semibold empty:hidden">
        {said}
      </p>
      {search.trim() !== '' && groups.every(({ rows }) => rows.length === 0) && (
        <p className="mt-3">
          Nothing in the library is called “{search.trim()}”. Type it into the table with the figures of its
          data plate: running W, power factor and how it starts; then keep it here for the next job.
        </p>
      )}
      {groups
        .filter(({ rows }) => rows.length > 0)
        .map(({ title, rows }) => (
          <section key={title} className="mt-3">
            <h3 className="font-semibold">{title}</h3>
            <table className="w-full">
              <tbody>{rows}</tbody>
            </table>
          </section>
        ))}
    </Modal>
  );
}
