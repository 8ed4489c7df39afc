import {
  entriesOf,
  entryOf,
  type EquipmentKind,
  type EquipmentType,
  freeTypeId,
  KIND_WORDS,
  readSheetEntries,
  SAMPLE_TYPES,
  type SheetEntries,
  type SheetField,
  type SheetGroup,
  SHEETS,
  typeQuestions,
} from '@bastion/core';
import { type ReactNode, type SyntheticEvent, useMemo, useState } from 'react';
import { useCatalogue } from '../../state/catalogue.ts';
import { z } from 'zod';
import { useFieldFromAddress } from '../../ui/fieldLinks.ts';
import { SheetInput } from './SheetInput.tsx';

interface TypeFormProps {
  readonly kind: EquipmentKind;
  /** What it begins from: the version before, or what is duplicated. */
  readonly from: EquipmentType | undefined;
  /** Id and number of the version before; a new type has none. */
  readonly before: { readonly id: string; readonly version: number } | undefined;
  readonly onKept: (id: string) => void;
  readonly onLeave: () => void;
}

const DRAFT = 'bastion-type-draft';

/** What was typed and not kept yet stays in this window until it is kept or left, for each beginning by itself. */
const draftKey = ({ kind, from, before }: TypeFormProps): string =>
  [DRAFT, kind, before === undefined ? 'new' : `${before.id}-${before.version}`, from?.id ?? 'blank'].join(
    ':',
  );

const draftSchema = z.record(z.string(), z.string());

function draftOf(props: TypeFormProps): SheetEntries | undefined {
  const kept = sessionStorage.getItem(draftKey(props));
  if (kept === null) return undefined;
  try {
    return draftSchema.parse(JSON.parse(kept));
  } catch {
    return undefined;
  }
}

function freshEntries({ kind, from, before }: TypeFormProps): SheetEntries {
  if (from === undefined) return {};
  const entries = entriesOf(from, SHEETS[kind]);
  return before === undefined ? { ...entries, name: `${from.name} (copy)` } : entries;
}

/** Everything that is asked about a type as it stands: what is impossible, and what is unusual. */
function useJudged({ kind, before }: TypeFormProps, entries: SheetEntries) {
  const types = useCatalogue((store) => store.types);
  return useMemo(() => {
    const id = before?.id ?? freeTypeId(entries.name ?? '', new Set(types.map((type) => type.id)));
    const read = readSheetEntries(kind, { id, version: (before?.version ?? 0) + 1 }, SHEETS[kind], entries);
    const byKey = (list: readonly { path: readonly (string | number)[]; message: string }[]) =>
      new Map([...list].reverse().map(({ path, message }) => [String(path[0]), message]));
    return {
      type: read.ok ? read.value : undefined,
      problems: byKey(read.ok ? [] : read.problems),
      questions: byKey(read.ok ? typeQuestions(read.value) : []),
    };
  }, [kind, before, entries, types]);
}

function DraftNote({ onFresh }: { readonly onFresh: () => void }) {
  return (
    <p className="mb-2 flex items-center gap-3">
      Taken up where it was left.
      <button type="button" className="button" onClick={onFresh}>
        Start over
      </button>
    </p>
  );
}

interface FootProps {
  readonly keepLabel: string;
  readonly onLeave: () => void;
  /** Why the server did not keep it. */
  readonly failure: string;
  /** Figures that are missing or impossible, and those that are unusual and not confirmed. */
  readonly wrong: number;
  readonly unsure: number;
}

/** Stays in view under the long form, with what stands in the way of keeping it. */
function Foot({ keepLabel, onLeave, failure, wrong, unsure }: FootProps) {
  return (
    <div className="sticky -bottom-4 -mx-4 -mb-4 flex flex-wrap items-center gap-2 border-t border-edge bg-sheet px-4 py-2">
      <button type="submit" className="button button-main">
        {keepLabel}
      </button>
      <button type="button" className="button" onClick={onLeave}>
        Leave without keeping
      </button>
      <span role="status">
        {failure !== '' && <span className="text-over">{failure}</span>}
        {wrong > 0 && (
          <span className="text-over">
            {wrong === 1 ? 'One figure is' : `${wrong} figures are`} missing or not possible. Nothing was
            kept.
          </span>
        )}
        {unsure > 0 && (
          <span className="text-tight">
            {unsure === 1 ? 'One figure is' : `${unsure} figures are`} unusual: confirm or correct first.
          </span>
        )}
      </span>
    </div>
  );
}

interface GroupFieldsProps {
  readonly group: SheetGroup;
  /** Whether the figures that are not needed at once stand open. */
  readonly isOpen: boolean;
  readonly children: (field: SheetField) => ReactNode;
}

/** What a sample of the kind has there: how such a figure is written. */
const exampleOf = (kind: EquipmentKind, field: SheetField): string =>
  SAMPLE_TYPES.filter((type) => type.kind === kind)
    .map((type) => entryOf(type, field))
    .find((entry) => entry !== '') ?? '';

/** The figures without which a type cannot be kept stand first; the rest of the table folds behind what asks for it. */
function GroupFields({ group, isOpen, children }: GroupFieldsProps) {
  const grid = 'grid grid-cols-1 gap-x-4 gap-y-2 sm:grid-cols-2 xl:grid-cols-3';
  const needed = group.fields.filter(({ isNeeded }) => isNeeded === true);
  const rest = group.fields.filter(({ isNeeded }) => isNeeded !== true);
  return (
    <>
      <div className={grid}>{needed.map(children)}</div>
      {rest.length > 0 && (
        <details open={isOpen || undefined} className="mt-2">
          <summary className="min-h-6 cursor-pointer text-touch">
            {rest.length} more{group.asked === undefined ? '' : `, asked for when ${group.asked}`}
          </summary>
          <div className={`${grid} mt-2`}>{rest.map(children)}</div>
        </details>
      )}
    </>
  );
}

/** A data sheet to be typed off: grouped as makers print it; impossible figures are refused, unusual ones asked about. */
export function TypeForm(props: TypeFormProps) {
  const { kind, from, before, onKept, onLeave } = props;
  const keep = useCatalogue((store) => store.keep);
  const [found, setFound] = useState(() => draftOf(props));
  const [entries, setEntries] = useState(() => found ?? freshEntries(props));
  const [touched, setTouched] = useState<ReadonlySet<string>>(new Set());
  const [sure, setSure] = useState<ReadonlySet<string>>(new Set());
  const [isTried, setIsTried] = useState(false);
  const [failure, setFailure] = useState('');
  const { type, problems, questions } = useJudged(props, entries);
  const open = [...questions.keys()].filter((key) => !sure.has(key));
  const change = (key: string, value: string): void => {
    const next = { ...entries, [key]: value };
    setEntries(next);
    setTouched(new Set(touched).add(key));
    setSure(new Set([...sure].filter((one) => one !== key)));
    sessionStorage.setItem(draftKey(props), JSON.stringify(next));
  };
  // A link may have led to one figure of it.
  useFieldFromAddress(true);
  const leave = (): void => {
    sessionStorage.removeItem(draftKey(props));
    onLeave();
  };
  const save = async (event: SyntheticEvent): Promise<void> => {
    event.preventDefault();
    setIsTried(true);
    const first = [...problems.keys(), ...open][0];
    if (type === undefined || first !== undefined) {
      const field = document.querySelector<HTMLElement>(`[data-field="type/${first ?? 'name'}"]`);
      field?.scrollIntoView({ block: 'center' });
      field?.focus();
      return;
    }
    const failed = await keep([type]);
    if (failed !== undefined) {
      setFailure(failed);
      return;
    }
    sessionStorage.removeItem(draftKey(props));
    onKept(type.id);
  };
  return (
    <form onSubmit={(event) => void save(event)} noValidate aria-label={`Data sheet: ${KIND_WORDS[kind][0]}`}>
      {found !== undefined && (
        <DraftNote
          onFresh={() => {
            sessionStorage.removeItem(draftKey(props));
            setFound(undefined);
            setEntries(freshEntries(props));
          }}
        />
      )}
      {SHEETS[kind].map((group) => (
        <fieldset key={group.title} className="mb-4 border-t border-rule pt-2">
          <legend className="pr-2 font-semibold">{group.title}</legend>
          {group.where !== '' && <p className="text-quiet">Look in: {group.where}.</p>}
          <GroupFields group={group} isOpen={from !== undefined || isTried}>
            {(field) => (
              <SheetInput
                key={field.key}
                field={field}
                value={entries[field.key] ?? ''}
                example={exampleOf(kind, field)}
                onChange={(value) => change(field.key, value)}
                problem={isTried || touched.has(field.key) ? problems.get(field.key) : undefined}
                question={questions.get(field.key)}
                isSure={sure.has(field.key)}
                onSure={(isSure) =>
                  setSure(
                    new Set(isSure ? [...sure, field.key] : [...sure].filter((one) => one !== field.key)),
                  )
                }
              />
            )}
          </GroupFields>
        </fieldset>
      ))}
      <Foot
        keepLabel={before === undefined ? 'Keep this type' : `Keep as version ${before.version + 1}`}
        onLeave={leave}
        failure={failure}
        wrong={isTried ? problems.size : 0}
        unsure={isTried && problems.size === 0 ? open.length : 0}
      />
    </form>
  );
}
