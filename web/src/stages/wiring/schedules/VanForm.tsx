import type { Remnant, Wiring } from '@bastion/core';
import { Plus, Trash2 } from 'lucide-react';
import { newId, useJob, useOpenJob } from '../../../state/job.ts';
import { put } from '../../../state/put.ts';
import { NumberField, SelectField, TextField } from '../../../ui/fields.tsx';
import { SizeField } from '../../../ui/SizeField.tsx';

const MAKES = [
  { value: 'cable', label: 'cable' },
  { value: 'single', label: 'single core' },
  { value: 'flexible', label: 'flexible lead' },
] as const;

function RemnantRow({ remnant }: { readonly remnant: Remnant }) {
  const { canEdit } = useOpenJob();
  const change = useJob((store) => store.change);
  const path = ['wiring', 'remnants', remnant.id];
  const edit = (label: string, recipe: (one: Remnant) => void) =>
    change(`${label} in the van`, (draft) => {
      const target = draft.wiring?.remnants?.find(({ id }) => id === remnant.id);
      if (target !== undefined) recipe(target);
    });
  return (
    <fieldset className="grid grid-cols-2 items-start gap-x-3 border-t border-rule py-1 md:grid-cols-6">
      <legend className="sr-only">A piece in the van</legend>
      <SelectField
        label="What"
        path={[...path, 'make']}
        value={remnant.make}
        options={MAKES}
        disabled={!canEdit}
        onTake={(value) => edit('Kind', (one) => value !== undefined && put(one, 'make', value))}
      />
      <SizeField
        label="Size"
        path={[...path, 'areaMm2']}
        value={remnant.areaMm2}
        onTake={(value) => edit('Size', (one) => value !== undefined && put(one, 'areaMm2', value))}
      />
      <NumberField
        label="Length"
        path={[...path, 'lengthM']}
        value={remnant.lengthM}
        unit="m"
        disabled={!canEdit}
        onTake={(value) => edit('Length', (one) => value !== undefined && put(one, 'lengthM', value))}
      />
      <NumberField
        label="Pieces"
        path={[...path, 'pieces']}
        value={remnant.pieces}
        unit=""
        absent="1"
        disabled={!canEdit}
        onTake={(value) => edit('Pieces', (one) => put(one, 'pieces', value))}
      />
      {remnant.make === 'cable' ? (
        <NumberField
          label="Cores, earth counted"
          path={[...path, 'cores']}
          value={remnant.cores}
          unit=""
          disabled={!canEdit}
          onTake={(value) => edit('Cores', (one) => put(one, 'cores', value))}
        />
      ) : (
        <TextField
          label="Colour"
          path={[...path, 'colour']}
          value={remnant.colour ?? ''}
          placeholder="any"
          disabled={!canEdit}
          onTake={(value) => edit('Colour', (one) => put(one, 'colour', value === '' ? undefined : value))}
        />
      )}
      {canEdit && (
        <button
          type="button"
          className="button button-quiet mt-5 justify-self-start"
          aria-label="Take this piece off the list"
          onClick={() =>
            void change('Take a piece off the van', (draft) => {
              if (draft.wiring?.remnants !== undefined)
                draft.wiring.remnants = draft.wiring.remnants.filter(({ id }) => id !== remnant.id);
            })
          }
        >
          <Trash2 size={15} aria-hidden="true" />
        </button>
      )}
    </fieldset>
  );
}

/** What is in the van, and the lengths in which conductors are bought: the cut list uses the first before it asks for the second. */
export function VanForm() {
  const { design, canEdit } = useOpenJob();
  const change = useJob((store) => store.change);
  const wiring = design.wiring;
  const stock = wiring?.stock?.find(({ areaMm2 }) => areaMm2 === undefined);
  const edit = (label: string, recipe: (one: Wiring) => void) =>
    change(label, (draft) => {
      draft.wiring ??= {};
      recipe(draft.wiring);
    });
  return (
    <div className="no-print">
      <div className="grid max-w-xl grid-cols-2 gap-x-4">
        <NumberField
          label="Bought in lengths of"
          path={['wiring', 'stock', stock?.id ?? 'all', 'lengthM']}
          value={stock?.lengthM}
          unit="m"
          absent="100, as planned"
          disabled={!canEdit}
          onTake={(value) =>
            edit('Bought length', (one) => {
              const others = (one.stock ?? []).filter(({ areaMm2 }) => areaMm2 !== undefined);
              one.stock =
                value === undefined ? others : [...others, { id: stock?.id ?? newId('s'), lengthM: value }];
            })
          }
        />
        <NumberField
          label="Lost at each cut"
          path={['wiring', 'kerfM']}
          value={wiring?.kerfM}
          unit="mm"
          scale={1000}
          absent="nothing"
          disabled={!canEdit}
          onTake={(value) => edit('Lost at each cut', (one) => put(one, 'kerfM', value))}
        />
      </div>
      <h4 className="mt-1 text-[13px] text-quiet">In the van</h4>
      {(wiring?.remnants ?? []).map((one) => (
        <RemnantRow key={one.id} remnant={one} />
      ))}
      {canEdit && (
        <button
          type="button"
          className="button mt-1"
          onClick={() =>
            edit('A piece in the van', (one) => {
              one.remnants = [
                ...(one.remnants ?? []),
                { id: newId('v'), make: 'cable', areaMm2: 2.5, lengthM: 10, cores: 3 },
              ];
            })
          }
        >
          <Plus size={15} aria-hidden="true" /> Add a piece
        </button>
      )}
    </div>
  );
}
