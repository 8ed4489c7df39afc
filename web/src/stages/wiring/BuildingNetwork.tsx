import { type Circuit, type Design, libraryItem, remember, speaksForSet, type Unit } from '@bastion/core';
import { useId } from 'react';
import { useJob, useOpenJob } from '../../state/job.ts';
import { put } from '../../state/put.ts';
import { fieldKey } from '../../ui/fieldLinks.ts';
import { SelectField } from '../../ui/fields.tsx';
import { FindingLines } from '../../ui/FindingLines.tsx';

const WAYS = [
  { value: 'cable', label: 'by cable' },
  { value: 'radio', label: 'by radio' },
  { value: 'none', label: 'not joined' },
] as const;

const ROUTER = 'Router and modem';

/** Looked up in the library once for each circuit: most edits leave most of them alone. */
const hasRouter = remember(({ name, items }: Circuit): boolean =>
  [name, ...items.map((item) => item.name)].some((one) => libraryItem(one)?.item.name === ROUTER),
);

/** The circuit that the router of the building hangs on; those that have one by their survey come first. */
function RouterCircuit() {
  const { design, canEdit } = useOpenJob();
  const change = useJob((store) => store.change);
  const id = useId();
  const likely = design.circuits.filter(hasRouter);
  const others = design.circuits.filter((one) => !hasRouter(one));
  const fed = design.circuits.filter(({ feedsRouter }) => feedsRouter === 'yes');
  const options = (circuits: readonly Circuit[]) =>
    circuits.map((circuit) => (
      <option key={circuit.id} value={circuit.id}>
        {circuit.name}
      </option>
    ));
  return (
    <div>
      <label htmlFor={id} className="block text-[13px] text-quiet">
        Its router hangs on
      </label>
      <select
        id={id}
        data-field={fieldKey(['router'])}
        className="input"
        disabled={!canEdit}
        value={fed[0]?.id ?? ''}
        onChange={({ target }) =>
          change('Circuit of the router', (draft) => {
            for (const circuit of draft.circuits)
              if (circuit.id === target.value) circuit.feedsRouter = 'yes';
              else if (circuit.feedsRouter !== undefined) delete circuit.feedsRouter;
          })
        }
      >
        <option value="">not known</option>
        {likely.length === 0 ? (
          options(others)
        ) : (
          <>
            <optgroup label="With a router in the survey">{options(likely)}</optgroup>
            <optgroup label="Other circuits">{options(others)}</optgroup>
          </>
        )}
      </select>
    </div>
  );
}

/** What can be joined: controllers, units that speak for their set, and whatever is joined already. */
function devicesOf(design: Design, isHost: (stackId: string, unit: Unit) => boolean) {
  const several = design.stacks.length > 1;
  return [
    ...design.controllers.map(({ id, name, network }) => ({
      path: ['controllers', id, 'network'],
      label: name,
      value: network,
      find: (draft: Design) => draft.controllers.find((one) => one.id === id),
    })),
    ...design.stacks.flatMap((stack) =>
      stack.units.flatMap((unit, at) =>
        unit.network === undefined && !isHost(stack.id, unit)
          ? []
          : [
              {
                path: ['stacks', stack.id, 'units', unit.id, 'network'],
                label: `Unit ${at + 1}${several ? ` of ${stack.name}` : ''}`,
                value: unit.network,
                find: (draft: Design) =>
                  draft.stacks.find((one) => one.id === stack.id)?.units.find((one) => one.id === unit.id),
              },
            ],
      ),
    ),
  ];
}

/** How inverters and controllers are joined to the network of the building, and what keeps its router alive. */
export function BuildingNetwork() {
  const { design, analysis, canEdit } = useOpenJob();
  const change = useJob((store) => store.change);
  const { installation } = analysis;
  const devices = devicesOf(design, (stackId, unit) => {
    const set = installation.stacks.find(({ stack }) => stack.id === stackId);
    return set !== undefined && speaksForSet(installation, set, unit);
  });
  return (
    <section className="sheet p-3" data-field="buildingNetwork" tabIndex={-1}>
      <h3 className="font-semibold">Network of the building</h3>
      <p className="text-[13px] text-quiet">
        What reports by it, and whether it is still heard while the grid is away.
      </p>
      <div className="mt-1 grid grid-cols-2 gap-x-4">
        {devices.map(({ path, label, value, find }) => (
          <SelectField
            key={path.join('/')}
            label={label}
            path={path}
            value={value}
            options={WAYS}
            emptyLabel="not decided"
            disabled={!canEdit}
            onTake={(way) =>
              change(`Network: ${label}`, (draft) => {
                const target = find(draft);
                if (target !== undefined) put(target, 'network', way);
              })
            }
          />
        ))}
        <RouterCircuit />
      </div>
      <FindingLines checks={['wiring.network']} about={{ kind: 'design', id: 'building-network' }} />
    </section>
  );
}
