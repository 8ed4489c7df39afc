import { type Design, leadSizeWords, type ReadTerminal, readLeadSize } from '@bastion/core';
import { newId, useJob, useOpenJob } from '../../../state/job.ts';
import { put } from '../../../state/put.ts';
import { NumberField, SelectField, TextField } from '../../../ui/fields.tsx';

/** What somebody has read off a terminal; made where nobody has read anything yet. */
function terminalIn(draft: Design, portId: string): ReadTerminal {
  draft.wiring ??= {};
  draft.wiring.terminals ??= [];
  const found = draft.wiring.terminals.find((one) => one.portId === portId);
  if (found !== undefined) return found;
  const made: ReadTerminal = { id: newId('e'), portId };
  draft.wiring.terminals.push(made);
  // What the list holds is the draft of it, not the object it was made of.
  return draft.wiring.terminals.at(-1) ?? made;
}

const ENDS = ['bare', 'ferrule', 'ring', 'fork', 'pin', 'plug'] as const;
const END_OPTIONS = ENDS.map((value) => ({ value, label: value === 'pin' ? 'pin contact' : value }));

const SIZES = [
  { key: 'minMm2', label: 'Thinnest conductor' },
  { key: 'maxMm2', label: 'Thickest conductor' },
] as const;
const FIGURES = [
  { key: 'stripMm', label: 'Strip', unit: 'mm' },
  { key: 'torqueNm', label: 'Torque', unit: 'Nm' },
  { key: 'mostConductors', label: 'Conductors', unit: '' },
] as const;

/** A termination opened: what its terminal takes, read off the thing itself where its type does not say it. */
export function TerminalForm({ portId }: { readonly portId: string }) {
  const { design, analysis, canEdit } = useOpenJob();
  const change = useJob((store) => store.change);
  const { network } = analysis.installation;
  const takes = network.known ? network.value.ports.find(({ id }) => id === portId)?.takes : undefined;
  const now = takes?.known === true ? takes.value : undefined;
  const read = design.wiring?.terminals?.find((one) => one.portId === portId);
  const path = ['wiring', 'terminals', read?.id ?? portId];
  const edit = (label: string, recipe: (one: ReadTerminal) => void) =>
    change(label, (draft) => recipe(terminalIn(draft, portId)));
  return (
    <div className="sticky left-0 w-[calc(100cqw-3rem)] rounded-sm border border-rule bg-ground p-2 whitespace-normal">
      <p className="mb-1 text-[13px] text-quiet">
        Read off the terminal or its label. What the type states goes before it; from the thinnest to the
        thickest conductor is needed for anything else to count.
      </p>
      <div className="grid grid-cols-2 gap-x-4 gap-y-1 md:grid-cols-6">
        {SIZES.map(({ key, label }) => (
          <TextField
            key={key}
            label={`${label}, mm² or AWG`}
            path={[...path, key]}
            value={read?.[key] === undefined ? '' : leadSizeWords(read[key])}
            placeholder={now === undefined ? 'not known' : leadSizeWords(now[key])}
            disabled={!canEdit}
            onTake={(text) => {
              const areaMm2 = text === '' ? undefined : readLeadSize(text, design.site.codeProfile);
              if (text !== '' && areaMm2 === undefined)
                return [
                  { path: [...path, key], message: `"${text.slice(0, 20)}" is not a size, as 16 or 6 AWG` },
                ];
              return edit(label, (one) => put(one, key, areaMm2));
            }}
          />
        ))}
        {FIGURES.map(({ key, label, unit }) => (
          <NumberField
            key={key}
            label={label}
            path={[...path, key]}
            value={read?.[key]}
            unit={unit}
            absent={now?.[key] === undefined ? 'not known' : String(now[key])}
            disabled={!canEdit}
            onTake={(value) => edit(label, (one) => put(one, key, value))}
          />
        ))}
        <SelectField
          label="End"
          path={[...path, 'ends']}
          value={read?.ends?.[0]}
          options={END_OPTIONS}
          emptyLabel={now?.ends === undefined ? 'not known' : `as its type: ${now.ends.join(', ')}`}
          disabled={!canEdit}
          onTake={(value) =>
            edit('End', (one) => put(one, 'ends', value === undefined ? undefined : [value]))
          }
        />
      </div>
    </div>
  );
}
