import { cableLines, type Passage, type Splice } from '@bastion/core';
import { Plus, Trash2 } from 'lucide-react';
import { newId, useJob, useOpenJob } from '../../../state/job.ts';
import { put } from '../../../state/put.ts';
import { FindingLines } from '../../../ui/FindingLines.tsx';
import { NumberField, SelectField, TextField } from '../../../ui/fields.tsx';

interface Choice {
  readonly value: string;
  readonly label: string;
}

const SIDES = ['top', 'bottom', 'left', 'right', 'back'].map((side) => ({ value: side, label: side }));

function useCables(): readonly Choice[] {
  const { installation } = useOpenJob().analysis;
  const lines = cableLines(installation);
  return lines.known ? lines.value.map(({ id, label }) => ({ value: id, label })) : [];
}

/** Inverters and modules: what a gland or a conduit goes into. */
function useParts(): readonly Choice[] {
  const { network } = useOpenJob().analysis.installation;
  return network.known
    ? network.value.parts
        .filter(({ kind }) => kind === 'inverter' || kind === 'module')
        .map(({ id, label }) => ({ value: id, label }))
    : [];
}

function PassageForm({
  passage,
  cables,
  parts,
}: {
  readonly passage: Passage;
  readonly cables: readonly Choice[];
  readonly parts: readonly Choice[];
}) {
  const { canEdit } = useOpenJob();
  const change = useJob((store) => store.change);
  const path = ['wiring', 'passages', passage.id];
  const edit = (label: string, recipe: (one: Passage) => void) =>
    change(`${label}: ${passage.name}`, (draft) => {
      const found = draft.wiring?.passages?.find(({ id }) => id === passage.id);
      if (found !== undefined) recipe(found);
    });
  const isConduit = passage.kind === 'conduit';
  const labels = new Map(cables.map(({ value, label }) => [value, label]));
  return (
    <fieldset className="border-t border-rule py-2">
      <legend className="sr-only">{passage.name}</legend>
      <div className="grid grid-cols-2 gap-x-4 gap-y-1 md:grid-cols-4">
        <TextField
          label="Name"
          path={[...path, 'name']}
          value={passage.name}
          disabled={!canEdit}
          onTake={(value) => edit('Name', (one) => (one.name = value))}
        />
        <NumberField
          label={isConduit ? 'Inside diameter' : 'Seals on at most'}
          path={[...path, 'innerMm']}
          value={passage.innerMm}
          unit="mm"
          disabled={!canEdit}
          onTake={(value) => edit('Inside', (one) => put(one, 'innerMm', value))}
        />
        {!isConduit && (
          <NumberField
            label="Seals on at least"
            path={[...path, 'leastMm']}
            value={passage.leastMm}
            unit="mm"
            disabled={!canEdit}
            onTake={(value) => edit('Range', (one) => put(one, 'leastMm', value))}
          />
        )}
        <NumberField
          label="Hole it needs"
          path={[...path, 'threadMm']}
          value={passage.threadMm}
          unit="mm"
          disabled={!canEdit}
          onTake={(value) => edit('Hole', (one) => put(one, 'threadMm', value))}
        />
        <SelectField
          label="Goes into"
          path={[...path, 'intoId']}
          value={passage.intoId}
          options={parts}
          emptyLabel="nothing"
          disabled={!canEdit}
          onTake={(value) => edit('Goes into', (one) => put(one, 'intoId', value))}
        />
        <SelectField
          label="On its side"
          path={[...path, 'side']}
          value={passage.side}
          options={SIDES}
          disabled={!canEdit}
          onTake={(value) =>
            edit('Side', (one) =>
              put(
                one,
                'side',
                SIDE_NAMES.find((side) => side === value),
              ),
            )
          }
        />
        <SelectField
          label="Add a cable"
          path={[...path, 'lineIds']}
          value={undefined}
          options={cables.filter(({ value }) => !passage.lineIds.includes(value))}
          emptyLabel="choose"
          disabled={!canEdit}
          onTake={(value) =>
            value === undefined
              ? []
              : edit('Cable added', (one) => void (one.lineIds = [...one.lineIds, value]))
          }
        />
      </div>
      <ul className="mt-1 flex flex-wrap gap-x-4 gap-y-1">
        {passage.lineIds.map((lineId) => (
          <li key={lineId} className="flex items-center gap-1">
            {labels.get(lineId) ?? `${lineId}, which is not there`}
            {canEdit && (
              <button
                type="button"
                className="button button-quiet"
                aria-label={`Take ${labels.get(lineId) ?? lineId} out of ${passage.name}`}
                onClick={() =>
                  void edit(
                    'Cable taken out',
                    (one) => void (one.lineIds = one.lineIds.filter((id) => id !== lineId)),
                  )
                }
              >
                <Trash2 size={14} aria-hidden="true" />
              </button>
            )}
          </li>
        ))}
      </ul>
      <FindingLines checks={['wiring.fill']} about={{ kind: 'part', id: `passage ${passage.id}` }} />
      {canEdit && (
        <button
          type="button"
          className="button button-quiet"
          onClick={() =>
            void change(`Remove ${passage.name}`, (draft) => {
              if (draft.wiring?.passages !== undefined)
                draft.wiring.passages = draft.wiring.passages.filter(({ id }) => id !== passage.id);
            })
          }
        >
          <Trash2 size={14} aria-hidden="true" /> Remove {passage.name}
        </button>
      )}
    </fieldset>
  );
}

const SIDE_NAMES = ['top', 'bottom', 'left', 'right', 'back'] as const;
const KINDS = [
  { value: 'splice', label: 'splice' },
  { value: 'tap', label: 'tap' },
  { value: 'lug', label: 'lug' },
] as const;

function SpliceForm({ splice, cables }: { readonly splice: Splice; readonly cables: readonly Choice[] }) {
  const { canEdit } = useOpenJob();
  const change = useJob((store) => store.change);
  const path = ['wiring', 'splices', splice.id];
  const edit = (label: string, recipe: (one: Splice) => void) =>
    change(label, (draft) => {
      const found = draft.wiring?.splices?.find(({ id }) => id === splice.id);
      if (found !== undefined) recipe(found);
    });
  return (
    <fieldset className="border-t border-rule py-2">
      <legend className="sr-only">{splice.kind}</legend>
      <div className="grid grid-cols-2 gap-x-4 gap-y-1 md:grid-cols-6">
        <SelectField
          label="Kind"
          path={[...path, 'kind']}
          value={splice.kind}
          options={KINDS}
          disabled={!canEdit}
          onTake={(value) => edit('Kind', (one) => void (one.kind = value ?? one.kind))}
        />
        <SelectField
          label="In the cable"
          path={[...path, 'lineId']}
          value={splice.lineId}
          options={cables}
          disabled={!canEdit}
          onTake={(value) => edit('Cable', (one) => void (one.lineId = value ?? one.lineId))}
        />
        <NumberField
          label="Takes at least"
          path={[...path, 'minMm2']}
          value={splice.minMm2}
          unit="mm²"
          disabled={!canEdit}
          onTake={(value) => edit('Range', (one) => put(one, 'minMm2', value))}
        />
        <NumberField
          label="Takes at most"
          path={[...path, 'maxMm2']}
          value={splice.maxMm2}
          unit="mm²"
          disabled={!canEdit}
          onTake={(value) => edit('Range', (one) => put(one, 'maxMm2', value))}
        />
        <TextField
          label="Enclosure"
          path={[...path, 'enclosure']}
          value={splice.enclosure ?? ''}
          disabled={!canEdit}
          onTake={(value) =>
            edit('Enclosure', (one) => put(one, 'enclosure', value === '' ? undefined : value))
          }
        />
        <TextField
          label="Where it stands"
          path={[...path, 'stands']}
          value={splice.stands ?? ''}
          disabled={!canEdit}
          onTake={(value) => edit('Place', (one) => put(one, 'stands', value === '' ? undefined : value))}
        />
      </div>
      <FindingLines checks={['wiring.splices']} about={{ kind: 'part', id: `splice ${splice.id}` }} />
      {canEdit && (
        <button
          type="button"
          className="button button-quiet"
          onClick={() =>
            void change(`Remove a ${splice.kind}`, (draft) => {
              if (draft.wiring?.splices !== undefined)
                draft.wiring.splices = draft.wiring.splices.filter(({ id }) => id !== splice.id);
            })
          }
        >
          <Trash2 size={14} aria-hidden="true" /> Remove this {splice.kind}
        </button>
      )}
    </fieldset>
  );
}

/** Conduits, glands and splices of the job: what goes through them, and what they take. */
export function FittingsForm() {
  const { design, canEdit } = useOpenJob();
  const change = useJob((store) => store.change);
  const cables = useCables();
  const parts = useParts();
  const { passages = [], splices = [] } = design.wiring ?? {};
  const addPassage = (kind: Passage['kind']): void =>
    void change(`Add a ${kind}`, (draft) => {
      draft.wiring ??= {};
      draft.wiring.passages ??= [];
      const number = draft.wiring.passages.filter((one) => one.kind === kind).length + 1;
      draft.wiring.passages.push({ id: newId('p'), name: `${kind} ${number}`, kind, lineIds: [] });
    });
  const [first] = cables;
  return (
    <div className="no-print">
      {passages.map((one) => (
        <PassageForm key={one.id} passage={one} cables={cables} parts={parts} />
      ))}
      {splices.map((one) => (
        <SpliceForm key={one.id} splice={one} cables={cables} />
      ))}
      {canEdit && first !== undefined && (
        <p className="mt-2 flex flex-wrap gap-2">
          <button type="button" className="button" onClick={() => addPassage('conduit')}>
            <Plus size={15} aria-hidden="true" /> Conduit
          </button>
          <button type="button" className="button" onClick={() => addPassage('gland')}>
            <Plus size={15} aria-hidden="true" /> Gland
          </button>
          <button
            type="button"
            className="button"
            onClick={() =>
              void change('Add a splice', (draft) => {
                draft.wiring ??= {};
                draft.wiring.splices ??= [];
                draft.wiring.splices.push({ id: newId('x'), lineId: first.value, kind: 'splice' });
              })
            }
          >
            <Plus size={15} aria-hidden="true" /> Splice
          </button>
        </p>
      )}
    </div>
  );
}
