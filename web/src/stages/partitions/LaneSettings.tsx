import type { Design, Partition, Problem } from '@bastion/core';
import { Settings2 } from 'lucide-react';
import { Popover } from 'radix-ui';
import { useJob, useOpenJob } from '../../state/job.ts';
import { put } from '../../state/put.ts';
import { NumberField, SelectField, TextField } from '../../ui/fields.tsx';
import { KIND_NAMES, KINDS } from './lanes.ts';

const KIND_OPTIONS = KINDS.map((value) => ({ value, label: KIND_NAMES[value] }));
const SHED_WHEN = [
  { value: 'at-transfer', label: 'At the transfer to island' },
  { value: 'below-soc', label: 'Below a state of charge' },
] as const;

function ShedFields({
  partition,
  changeIt,
}: {
  readonly partition: Partition;
  readonly changeIt: (label: string, recipe: (target: Partition) => void) => readonly Problem[];
}) {
  const path = ['partitions', partition.id];
  return (
    <>
      <NumberField
        label="Stage: 1 goes first"
        unit=""
        path={[...path, 'shedStage']}
        value={partition.shedStage}
        onTake={(value) => changeIt('Shed stage', (target) => put(target, 'shedStage', value))}
      />
      <SelectField
        label="Shed"
        path={[...path, 'shedWhen']}
        value={partition.shedWhen}
        options={SHED_WHEN}
        onTake={(value) => void changeIt('When it is shed', (target) => put(target, 'shedWhen', value))}
      />
      {partition.shedWhen === 'below-soc' && (
        <NumberField
          label="Below state of charge"
          unit="%"
          scale={100}
          path={[...path, 'shedBelowSoc']}
          value={partition.shedBelowSoc}
          onTake={(value) => changeIt('Shed below', (target) => put(target, 'shedBelowSoc', value))}
        />
      )}
    </>
  );
}

function outputsOf(design: Design, partition: Partition): readonly { value: string; label: string }[] {
  const stack = design.stacks.find((one) => one.id === partition.stackId);
  const type = design.types.find((one) => one.id === stack?.inverterTypeId);
  const outputs = type?.kind === 'inverter' ? (type.outputs ?? []) : [];
  return outputs.map(({ id, name, limitA }) => ({ value: id, label: `${name}, ${limitA} A` }));
}

/** What a board is: its name, its kind, what feeds it, and when it is shed. */
export function LaneSettings({ partition }: { readonly partition: Partition }) {
  const { design } = useOpenJob();
  const change = useJob((store) => store.change);
  const changeIt = (label: string, recipe: (target: Partition) => void) =>
    change(label, (draft) => {
      const target = draft.partitions.find((one) => one.id === partition.id);
      if (target !== undefined) recipe(target);
    });
  const path = ['partitions', partition.id];
  const outputs = outputsOf(design, partition);
  const isEmpty = design.circuits.every((circuit) => circuit.partitionId !== partition.id);
  const setKind = (target: Partition, kind: Partition['kind'] | undefined): void => {
    if (kind === undefined) return;
    target.kind = kind;
    if (kind === 'grid') {
      put(target, 'stackId', undefined);
      put(target, 'outputId', undefined);
    }
    if (kind !== 'shed')
      for (const key of ['shedStage', 'shedWhen', 'shedBelowSoc'] as const) put(target, key, undefined);
  };
  return (
    <Popover.Root>
      <Popover.Trigger asChild>
        <button type="button" className="button button-quiet" aria-label={`Settings of ${partition.name}`}>
          <Settings2 size={15} aria-hidden="true" />
        </button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          className="sheet z-20 grid w-72 gap-2 p-3 shadow-md"
          align="end"
          aria-label={`Settings of ${partition.name}`}
        >
          <TextField
            label="Name"
            path={[...path, 'name']}
            value={partition.name}
            onTake={(value) => changeIt('Name of the board', (target) => void (target.name = value))}
          />
          <SelectField
            label="Kind"
            path={[...path, 'kind']}
            value={partition.kind}
            options={KIND_OPTIONS}
            onTake={(value) => void changeIt('Kind of board', (target) => setKind(target, value))}
          />
          {partition.kind !== 'grid' && (
            <SelectField
              label="Fed by"
              path={[...path, 'stackId']}
              value={partition.stackId}
              options={design.stacks.map((stack) => ({ value: stack.id, label: stack.name }))}
              onTake={(value) =>
                void changeIt(`Feed ${partition.name}`, (target) => put(target, 'stackId', value))
              }
            />
          )}
          {outputs.length > 0 && partition.kind !== 'grid' && (
            <SelectField
              label="Output of the stack"
              path={[...path, 'outputId']}
              value={partition.outputId}
              options={outputs}
              onTake={(value) => void changeIt('Output', (target) => put(target, 'outputId', value))}
            />
          )}
          {partition.kind === 'shed' && <ShedFields partition={partition} changeIt={changeIt} />}
          <button
            type="button"
            className="button justify-center"
            disabled={!isEmpty}
            title={isEmpty ? undefined : 'Move its circuits first.'}
            onClick={() =>
              change(
                `Remove ${partition.name}`,
                (draft) =>
                  void (draft.partitions = draft.partitions.filter((one) => one.id !== partition.id)),
              )
            }
          >
            Remove this board
          </button>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
