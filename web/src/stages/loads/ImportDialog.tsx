import {
  counted,
  guessHeadingRow,
  guessMapping,
  importLoadRows,
  LOAD_FIELDS,
  type LoadField,
  type LoadImport,
  type LoadMapping,
  mappingWarnings,
  readDesign,
  SAMPLE_TYPES,
} from '@bastion/core';
import { FileSpreadsheet } from 'lucide-react';
import { useMemo, useState } from 'react';
import { useJob, useOpenJob } from '../../state/job.ts';
import { FilePicker } from '../../ui/FilePicker.tsx';
import { Modal } from '../../ui/Modal.tsx';
import { readSheet } from '../../state/readSheet.ts';

export interface SheetInHand {
  readonly name: string;
  readonly rows: readonly (readonly string[])[];
  /** The sign that parts fractions, where the kind of file tells it. */
  readonly decimal: '.' | undefined;
}

/** More lines of a list than anybody reads at once. */
const SHOWN = 60;

function MappingTable({
  heading,
  sample,
  mapping,
  onMapping,
}: {
  readonly heading: readonly string[];
  readonly sample: readonly string[];
  readonly mapping: LoadMapping;
  readonly onMapping: (mapping: LoadMapping) => void;
}) {
  const meaningOf = (at: number): LoadField | undefined =>
    LOAD_FIELDS.find(({ field }) => mapping[field] === at)?.field;
  const choose = (at: number, field: string): void => {
    const kept = Object.entries(mapping).filter(([key, where]) => where !== at && key !== field);
    const next: LoadMapping = Object.fromEntries(kept);
    const found = LOAD_FIELDS.find((one) => one.field === field);
    onMapping(found === undefined ? next : { ...next, [found.field]: at });
  };
  return (
    <div className="grid gap-x-4 gap-y-1.5 sm:grid-cols-2 lg:grid-cols-3">
      {heading.map((title, at) => (
        <label key={at} className="block min-w-0">
          <span className="block truncate text-[13px]">
            {title || `Column ${at + 1}`} <span className="text-quiet">{sample[at] ?? ''}</span>
          </span>
          <select
            className="input"
            value={meaningOf(at) ?? ''}
            onChange={(event) => choose(at, event.target.value)}
          >
            <option value="">leave out</option>
            {LOAD_FIELDS.map(({ field, title: words }) => (
              <option key={field} value={field}>
                {words}
              </option>
            ))}
          </select>
        </label>
      ))}
    </div>
  );
}

function Preview({ found }: { readonly found: LoadImport }) {
  const real = found.changes.filter((one) => one.kind !== 'same');
  const same = found.changes.length - real.length;
  return (
    <div className="grid gap-4 md:grid-cols-2">
      <section aria-label="What will change">
        <h3 className="font-semibold">
          {counted(real.length, 'row')} will change the design{same > 0 && `, ${same} say nothing new`}
        </h3>
        <ul className="mt-1 max-h-[34vh] overflow-y-auto" tabIndex={0}>
          {real.slice(0, SHOWN).map((one) => (
            <li key={one.row} className="border-t border-rule py-0.5">
              <span className="text-quiet">Row {one.row}</span> {one.kind}: <strong>{one.label}</strong>
              {one.details !== '' && <span className="block text-[13px] text-quiet">{one.details}</span>}
            </li>
          ))}
          {real.length > SHOWN && <li className="py-1 text-quiet">and {real.length - SHOWN} more</li>}
        </ul>
      </section>
      <section aria-label="Rows and cells left out">
        <h3 className={`font-semibold ${found.bad.length > 0 ? 'text-over' : ''}`}>
          {found.bad.length === 0 ? 'No row is left out' : `${counted(found.bad.length, 'row')} left out`}
          {found.left.length > 0 &&
            `, ${counted(found.left.length, 'cell')} could not be read: not known in new rows, as before in others`}
        </h3>
        <ul className="mt-1 max-h-[34vh] overflow-y-auto" tabIndex={0}>
          {[...found.bad, ...found.left].slice(0, SHOWN).map((one) => (
            <li key={`${one.row} ${one.reason}`} className="border-t border-rule py-0.5">
              <span className="text-quiet">Row {one.row}</span> {one.reason}
            </li>
          ))}
        </ul>
      </section>
    </div>
  );
}

function Mapped({ sheet, onDone }: { readonly sheet: SheetInHand; readonly onDone: () => void }) {
  const { design } = useOpenJob();
  const change = useJob((store) => store.change);
  const tell = useJob((store) => store.tell);
  const [headingRow, setHeadingRow] = useState(() => guessHeadingRow(sheet.rows));
  const heading = sheet.rows[headingRow] ?? [];
  const rows = sheet.rows.slice(headingRow + 1);
  const [mapping, setMapping] = useState<LoadMapping>(() => guessMapping(heading));
  const found = useMemo(
    () =>
      importLoadRows(
        design,
        sheet.rows.slice(headingRow + 1),
        mapping,
        headingRow + 2,
        sheet.rows[headingRow] ?? [],
        sheet.decimal,
      ),
    [design, sheet.rows, sheet.decimal, mapping, headingRow],
  );
  const check = useMemo(() => readDesign(found.design, SAMPLE_TYPES), [found.design]);
  const real = found.changes.filter((one) => one.kind !== 'same').length;
  const isNamed = mapping.circuit !== undefined || mapping.item !== undefined;
  const takeOver = (): void => {
    const [problem] = change(
      `Take over ${counted(real, 'row')} of ${sheet.name}`,
      (draft) => void Object.assign(draft, found.design),
      // The import has settled by itself what is a first value and what is not.
      (_before, after) => after,
    );
    if (problem === undefined) {
      const left = [
        found.bad.length > 0 ? ` ${counted(found.bad.length, 'row')} left out.` : '',
        found.left.length > 0 ? ` ${counted(found.left.length, 'cell')} not read, left not known.` : '',
      ].join('');
      tell(`${counted(real, 'row')} of ${sheet.name} taken over.${left}`);
      onDone();
    }
  };
  return (
    <div className="grid gap-4">
      <section>
        <div className="mb-2 flex flex-wrap items-end gap-3">
          <h3 className="flex-1 font-semibold">What each column of {sheet.name} means</h3>
          <label className="block">
            <span className="block text-[13px] text-quiet">Headings stand in</span>
            <select
              className="input"
              value={headingRow}
              onChange={(event) => {
                const row = Number(event.target.value);
                setHeadingRow(row);
                setMapping(guessMapping(sheet.rows[row] ?? []));
              }}
            >
              {sheet.rows.slice(0, 12).map((cells, row) => (
                <option key={row} value={row}>
                  row {row + 1}:{' '}
                  {cells
                    .filter((cell) => cell.trim() !== '')
                    .slice(0, 4)
                    .join(', ')}
                </option>
              ))}
            </select>
          </label>
        </div>
        {mappingWarnings(heading, mapping).map((warning) => (
          <p key={warning} role="alert" className="mb-1 font-semibold text-tight">
            {warning}
          </p>
        ))}
        <MappingTable heading={heading} sample={rows[0] ?? []} mapping={mapping} onMapping={setMapping} />
      </section>
      {isNamed ? (
        <Preview found={found} />
      ) : (
        <p className="text-unknown">Say which column names the circuit or the item.</p>
      )}
      {!check.ok && <p className="font-semibold text-over">{check.problems[0]?.message}</p>}
      <div className="flex gap-2">
        <button
          type="button"
          className="button button-main"
          disabled={!isNamed || real === 0 || !check.ok}
          onClick={takeOver}
        >
          Take over {counted(real, 'row')}
        </button>
        <button type="button" className="button" onClick={onDone}>
          Leave it
        </button>
      </div>
    </div>
  );
}

interface ImportDialogProps {
  readonly isOpen: boolean;
  /** Rows that came by the clipboard; a file is asked for where there are none. */
  readonly pasted: SheetInHand | undefined;
  readonly onClose: () => void;
}

/** Brings a sheet of loads in: which column means what, what would change, and which rows cannot be used and why. */
export function ImportDialog({ isOpen, pasted, onClose }: ImportDialogProps) {
  const [chosen, setChosen] = useState<SheetInHand>();
  const [failure, setFailure] = useState('');
  const sheet = pasted ?? chosen;
  const close = (): void => {
    setChosen(undefined);
    setFailure('');
    onClose();
  };
  const take = async (file: File): Promise<void> => {
    const read = await readSheet(file);
    setFailure(read.ok ? '' : read.message);
    setChosen(read.ok ? { name: file.name, rows: read.rows, decimal: read.decimal } : undefined);
  };
  return (
    <Modal title="Loads from a sheet" isOpen={isOpen} onClose={close} wide>
      {sheet === undefined ? (
        <>
          <p className="mb-3">
            A CSV or XLSX file with one row for each item and a row of headings. Rows of one circuit name
            join; what has the same name is changed; nothing is deleted.
          </p>
          <FilePicker
            label="Sheet of loads"
            accept=".csv,.tsv,.txt,.xlsx,text/csv"
            className="button-main"
            onFile={(file) => void take(file)}
          >
            <FileSpreadsheet size={15} aria-hidden="true" /> Choose a file
          </FilePicker>
          <p role="alert" className="mt-2 font-semibold text-over empty:hidden">
            {failure}
          </p>
        </>
      ) : (
        <Mapped key={sheet.name} sheet={sheet} onDone={close} />
      )}
    </Modal>
  );
}
