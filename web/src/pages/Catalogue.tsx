import { type EquipmentKind, type EquipmentType, KIND_WORDS, POWERS } from '@bastion/core';
import { DropdownMenu } from 'radix-ui';
import { useEffect, useRef, useState } from 'react';
import { useLocation, useNavigate, useParams } from 'react-router';
import { useCatalogue } from '../state/catalogue.ts';
import { useSession } from '../state/session.ts';
import { useFieldFromAddress } from '../ui/fieldLinks.ts';
import { FilePicker } from '../ui/FilePicker.tsx';
import { downloadTypes, readTypesFile } from './catalogue/typeFiles.ts';
import { TypeForm } from './catalogue/TypeForm.tsx';
import { TypeImport } from './catalogue/TypeImport.tsx';
import { TypeList } from './catalogue/TypeList.tsx';
import { TypeSheet } from './catalogue/TypeSheet.tsx';

type Doing =
  | { readonly kind: 'reading' }
  | { readonly kind: 'editing'; readonly type: EquipmentType }
  | { readonly kind: 'adding'; readonly of: EquipmentKind; readonly from: EquipmentType | undefined };

const READING: Doing = { kind: 'reading' };

const KINDS = Object.keys(KIND_WORDS).filter((kind): kind is EquipmentKind => kind in KIND_WORDS);

function NewMenu({ onNew }: { readonly onNew: (kind: EquipmentKind) => void }) {
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className="button button-main">New type</DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content className="sheet z-30 p-1 shadow-lg" align="start">
          {KINDS.map((kind) => (
            <DropdownMenu.Item
              key={kind}
              className="cursor-pointer px-3 py-1 data-highlighted:bg-chosen"
              onSelect={() => onNew(kind)}
            >
              {KIND_WORDS[kind][0]}
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

/**
 * A link to a figure of a type opens the form with that figure in hand where the type is the firm's own, and shows its line of the
 * sheet where it is not.
 */
function useFieldToEdit(isReady: boolean, edit: (() => void) | undefined): void {
  const { hash, key } = useLocation();
  const handled = useRef('');
  useFieldFromAddress(isReady);
  useEffect(() => {
    if (!isReady || !hash.startsWith('#field=') || handled.current === key) return;
    handled.current = key;
    edit?.();
  }, [hash, key, isReady, edit]);
}

interface OneTypeProps {
  readonly type: EquipmentType;
  readonly canEdit: boolean;
  readonly onEdit: () => void;
  readonly onDuplicate: () => void;
}

function OneType({ type, canEdit, onEdit, onDuplicate }: OneTypeProps) {
  const { own, usage, remove } = useCatalogue();
  const navigate = useNavigate();
  const [failure, setFailure] = useState('');
  const kept = own.find((one) => one.type.id === type.id);
  const used = usage[type.id] ?? 0;
  const takeOut = async (): Promise<void> => {
    const failed = await remove(type.id);
    if (failed === undefined) void navigate('/catalogue');
    else setFailure(failed);
  };
  return (
    <>
      <header className="mb-3">
        <h2>{type.name}</h2>
        <p className="text-quiet">
          {KIND_WORDS[type.kind][0]}, {kept === undefined ? 'sample' : `own type, kept by ${kept.addedBy}`},
          version {type.version}; used in {used === 1 ? '1 job' : `${used} jobs`}. Jobs keep the copy they
          were designed with.
        </p>
        {type.note !== undefined && <p>{type.note}</p>}
        {type.inTheBox !== undefined && <p className="text-quiet">In the box: {type.inTheBox.join(', ')}.</p>}
        <p className="no-print mt-2 flex flex-wrap gap-2">
          {canEdit && kept !== undefined && (
            <button type="button" className="button button-main" onClick={onEdit}>
              Change it: next version
            </button>
          )}
          {canEdit && (
            <button type="button" className="button" onClick={onDuplicate}>
              Duplicate
            </button>
          )}
          <button type="button" className="button" onClick={() => downloadTypes([type], 'json', type.id)}>
            JSON
          </button>
          <button type="button" className="button" onClick={() => downloadTypes([type], 'csv', type.id)}>
            CSV
          </button>
          {canEdit && kept !== undefined && used === 0 && (
            <button type="button" className="button" onClick={() => void takeOut()}>
              Take out of the catalogue
            </button>
          )}
        </p>
        {failure !== '' && (
          <p role="alert" className="text-over">
            {failure}
          </p>
        )}
      </header>
      <TypeSheet type={type} />
    </>
  );
}

/** The equipment catalogue: samples and the firm's own, each as its data sheet, with the form to type one off. */
export function Catalogue() {
  const { typeId } = useParams();
  const navigate = useNavigate();
  const { state, message, load, types, own, unreadable } = useCatalogue();
  const session = useSession((store) => store.session);
  const canEdit = session.kind === 'in' && POWERS[session.user.role].design;
  const [find, setFind] = useState('');
  // What is being done belongs to the type it was begun at: going to another leaves it.
  const [begun, setBegun] = useState<{ readonly at: string | undefined; readonly doing: Doing }>();
  const doing: Doing = begun?.at === typeId ? (begun?.doing ?? READING) : READING;
  const setDoing = (next: Doing): void => setBegun({ at: typeId, doing: next });
  const [incoming, setIncoming] = useState<readonly EquipmentType[]>();
  const [failure, setFailure] = useState('');
  useEffect(() => void load(), [load]);
  const chosen = types.find((type) => type.id === typeId);
  const isOwn = own.some((one) => one.type.id === typeId);
  useFieldToEdit(
    state !== 'loading' && chosen !== undefined,
    isOwn && canEdit && chosen !== undefined ? () => setDoing({ kind: 'editing', type: chosen }) : undefined,
  );
  const pick = async (file: File): Promise<void> => {
    const read = await readTypesFile(file);
    setFailure(read.ok ? '' : read.message);
    if (read.ok) setIncoming(read.types);
  };
  const kept = (id: string): void => {
    setDoing(READING);
    void navigate(`/catalogue/${id}`);
  };
  const read = (): void => setDoing(READING);
  return (
    <main className="grid h-full grid-rows-[auto_minmax(0,1fr)] print:block lg:grid-cols-[300px_minmax(0,1fr)] lg:grid-rows-1">
      <aside className="no-print flex min-h-0 flex-col gap-2 border-r border-rule p-3 max-lg:max-h-[40vh]">
        <h1 className="text-[17px] font-semibold">Equipment catalogue</h1>
        <input
          className="input"
          type="search"
          placeholder="Find a type"
          aria-label="Find a type"
          value={find}
          onChange={(event) => setFind(event.target.value)}
        />
        <div className="flex flex-wrap gap-2">
          {canEdit && <NewMenu onNew={(of) => setDoing({ kind: 'adding', of, from: undefined })} />}
          {canEdit && (
            <FilePicker label="File with types" accept=".json,.csv,.xlsx" onFile={(file) => void pick(file)}>
              Bring in
            </FilePicker>
          )}
          {own.length > 0 && (
            <button
              type="button"
              className="button"
              onClick={() =>
                downloadTypes(
                  own.map(({ type }) => type),
                  'json',
                  'own-types',
                )
              }
            >
              All own, JSON
            </button>
          )}
        </div>
        {failure !== '' && (
          <p role="alert" className="text-over">
            {failure}
          </p>
        )}
        {unreadable.length > 0 && (
          <p role="alert" className="text-over">
            Not shown, because it cannot be read: {unreadable.join('; ')}
          </p>
        )}
        {state === 'failed' && (
          <p role="alert" className="text-over">
            {message} Only samples are shown.
          </p>
        )}
        <div className="relative min-h-0 flex-1 overflow-y-auto" tabIndex={-1}>
          <TypeList find={find} chosenId={chosen?.id} />
        </div>
      </aside>
      <section
        className="relative min-h-0 scroll-pb-20 overflow-y-auto p-4 print:overflow-visible"
        aria-label="Data sheet"
        tabIndex={-1}
      >
        {doing.kind === 'adding' && (
          <>
            <h2 className="mb-2">
              {doing.from === undefined
                ? `New type: ${KIND_WORDS[doing.of][0]}`
                : `Copy of ${doing.from.name}`}
            </h2>
            <TypeForm kind={doing.of} from={doing.from} before={undefined} onKept={kept} onLeave={read} />
          </>
        )}
        {doing.kind === 'editing' && (
          <>
            <h2 className="mb-2">{doing.type.name}: next version</h2>
            <TypeForm
              kind={doing.type.kind}
              from={doing.type}
              before={doing.type}
              onKept={kept}
              onLeave={read}
            />
          </>
        )}
        {doing.kind === 'reading' && chosen !== undefined && (
          <OneType
            key={chosen.id}
            type={chosen}
            canEdit={canEdit}
            onEdit={() => setDoing({ kind: 'editing', type: chosen })}
            onDuplicate={() => setDoing({ kind: 'adding', of: chosen.kind, from: chosen })}
          />
        )}
        {doing.kind === 'reading' && chosen === undefined && (
          <div className="max-w-xl">
            <h2>{typeId === undefined ? 'Choose a type' : 'This type is not in the catalogue'}</h2>
            <p className="mt-2">
              Samples show what each kind of equipment looks like here; they are invented. Type off the data
              sheet of what you fit, or bring in a file that somebody else has made. Figures that cannot be
              are refused, unusual ones are asked about.
            </p>
          </div>
        )}
      </section>
      {incoming !== undefined && <TypeImport types={incoming} onClose={() => setIncoming(undefined)} />}
    </main>
  );
}
