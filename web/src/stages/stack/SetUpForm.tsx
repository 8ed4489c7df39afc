import { type Design, fitOf, type EquipmentType, type SetUpChoice, setUp } from '@bastion/core';
import { type ReactNode, type SyntheticEvent, useId, useState } from 'react';
import { z } from 'zod';
import { FormChoice } from '../../ui/FormChoice.tsx';
import { catalogueNow } from '../../state/catalogue.ts';
import { newId, useJob, useOpenJob } from '../../state/job.ts';
import { put } from '../../state/put.ts';
import { readNumber } from '../../ui/readNumber.ts';
import { useKept } from '../../ui/useKept.ts';
import { typeOptions } from './bank/BankForm.tsx';
import { CONNECTIONS } from './generatorWords.ts';
import { addStack } from './stackEdits.ts';

const typedSchema = z.object({
  inverter: z.string(),
  units: z.string(),
  battery: z.string(),
  modules: z.string(),
  generator: z.string(),
  connection: z.string(),
  circuitsTo: z.enum(['grid', 'backup', 'nowhere']),
  lossOfUnit: z.string(),
});
type Typed = z.infer<typeof typedSchema>;

const EMPTY: Typed = {
  inverter: '',
  units: '1',
  battery: '',
  modules: '1',
  generator: '',
  connection: 'generator-port',
  circuitsTo: 'backup',
  lossOfUnit: '',
};
const NO_BATTERY = 'none';

interface Option {
  readonly value: string;
  readonly label: string;
}

function Count({
  label,
  value,
  onType,
}: {
  readonly label: string;
  readonly value: string;
  readonly onType: (value: string) => void;
}) {
  const id = useId();
  return (
    <div>
      <label htmlFor={id} className="block text-[13px] text-quiet">
        {label}
      </label>
      <input
        id={id}
        className="input text-right"
        inputMode="numeric"
        autoComplete="off"
        value={value}
        onChange={(event) => onType(event.target.value)}
      />
    </div>
  );
}

const FIT_WORDS = {
  'its lines': '',
  'one line': ' (one line of this supply)',
  nothing: ' (not for this supply)',
} as const;

/** Inverters that can make the lines of the supply come first; the others say so before they are chosen. */
function inverterOptions(design: Design): Option[] {
  const types = new Map<string, EquipmentType>(
    [...catalogueNow(), ...design.types].map((one) => [one.id, one]),
  );
  const fitted = typeOptions(design, 'inverter').map((one) => {
    const type = types.get(one.value);
    return { one, fit: type?.kind === 'inverter' ? fitOf(type, design.site) : ('its lines' as const) };
  });
  return [
    { value: '', label: 'choose a type' },
    ...(['its lines', 'one line', 'nothing'] as const).flatMap((wanted) =>
      fitted
        .filter(({ fit }) => fit === wanted)
        .map(({ one, fit }) => ({ ...one, label: `${one.label}${FIT_WORDS[fit]}` })),
    ),
  ];
}

function connectionOptions(design: Design, inverterId: string): Option[] {
  const type = [...catalogueNow(), ...design.types].find((one) => one.id === inverterId);
  const hasNoPort = type?.kind === 'inverter' && type.generatorPortA === 'none';
  return CONNECTIONS.map((one) =>
    one.value === 'generator-port' && hasNoPort
      ? { ...one, label: `${one.label} (this type has none)` }
      : one,
  );
}

const readConnection = (value: string) => CONNECTIONS.find((one) => one.value === value)?.value;

function choiceOf(typed: Typed): SetUpChoice {
  return {
    inverterTypeId: typed.inverter,
    units: readNumber(typed.units) ?? 0,
    battery:
      typed.battery === ''
        ? undefined
        : typed.battery === NO_BATTERY
          ? 'none'
          : { typeId: typed.battery, modules: readNumber(typed.modules) ?? 0 },
    generator:
      typed.generator === ''
        ? undefined
        : { typeId: typed.generator, connection: readConnection(typed.connection) },
    circuitsTo: typed.circuitsTo,
  };
}

function Row({ children }: { readonly children: ReactNode }) {
  return <div className="grid grid-cols-[1fr_90px] gap-x-3">{children}</div>;
}

/** Boards, inverters, battery and generator in one step; what can be planned from the types is planned and marked. */
export function SetUpForm() {
  const { id, design } = useOpenJob();
  const change = useJob((store) => store.change);
  const [typed, setTyped, forget] = useKept(`set-up-${id}`, typedSchema, EMPTY);
  const [failure, setFailure] = useState('');
  const set = (part: Partial<Typed>): void => setTyped({ ...typed, ...part });
  const make = (event: SyntheticEvent): void => {
    event.preventDefault();
    const made = setUp(design, choiceOf(typed), catalogueNow(), newId);
    const [problem] = made.ok
      ? change('Set up boards and stack', (draft) => {
          Object.assign(draft, made.value);
          if (typed.lossOfUnit === 'yes' || typed.lossOfUnit === 'no')
            put(draft.site, 'surviveUnitLoss', typed.lossOfUnit);
        })
      : made.problems;
    setFailure(problem === undefined ? '' : `Not set up: ${problem.message}.`);
    if (problem === undefined) forget();
  };
  const open = design.circuits.filter((one) => one.partitionId === undefined).length;
  return (
    <form className="sheet grid max-w-xl gap-3 p-6" onSubmit={make}>
      <h2>Set up boards and stack</h2>
      <p>
        Say what stands on the wall. Boards, leads, plugs, settings and battery devices are planned from the
        types and marked as first values until somebody looks at them.
      </p>
      <Row>
        <FormChoice
          label="Inverter type"
          value={typed.inverter}
          options={inverterOptions(design)}
          onChoose={(inverter) => set({ inverter })}
        />
        <Count label="Units" value={typed.units} onType={(units) => set({ units })} />
      </Row>
      <Row>
        <FormChoice
          label="Battery type"
          value={typed.battery}
          options={[
            { value: '', label: 'not decided yet' },
            { value: NO_BATTERY, label: 'no battery' },
            ...typeOptions(design, 'battery'),
          ]}
          onChoose={(battery) => set({ battery })}
        />
        <Count label="Modules" value={typed.modules} onType={(modules) => set({ modules })} />
      </Row>
      <FormChoice
        label="Generator type"
        value={typed.generator}
        options={[{ value: '', label: 'no generator' }, ...typeOptions(design, 'generator')]}
        onChoose={(generator) => set({ generator })}
      />
      {typed.generator !== '' && (
        <FormChoice
          label="Connection"
          value={typed.connection}
          options={connectionOptions(design, typed.inverter)}
          onChoose={(connection) => set({ connection })}
        />
      )}
      {typed.units.trim() !== '1' && (
        <FormChoice
          label="Loss of one inverter"
          value={typed.lossOfUnit}
          options={[
            { value: '', label: 'not decided yet' },
            { value: 'yes', label: 'must be survived' },
            { value: 'no', label: 'need not be survived' },
          ]}
          onChoose={(lossOfUnit) => set({ lossOfUnit })}
        />
      )}
      {open > 0 && (
        <FormChoice
          label={`Circuits without a board (${open})`}
          value={typed.circuitsTo}
          options={[
            { value: 'backup', label: 'go to the backup output' },
            { value: 'grid', label: 'go to the grid side' },
            { value: 'nowhere', label: 'stay where they are' },
          ]}
          onChoose={(circuitsTo) => set({ circuitsTo: typedSchema.shape.circuitsTo.parse(circuitsTo) })}
        />
      )}
      <p role="alert" className="font-semibold text-over empty:hidden">
        {failure}
      </p>
      <div className="flex flex-wrap gap-2">
        <button type="submit" className="button button-main">
          Set up boards and stack
        </button>
        <button type="button" className="button" onClick={() => change('Add a stack', addStack)}>
          Add a stack
        </button>
      </div>
      <p className="text-[13px] text-quiet">
        “Add a stack” adds an empty one, to be filled in field by field. Either can be undone.
      </p>
    </form>
  );
}
