import { type Conductor, joiningSchema, LEAD_SIZES_MM2, type Module, type Stack } from '@bastion/core';
import { useJob, useOpenJob } from '../../state/job.ts';
import { put } from '../../state/put.ts';
import { NumberField, SelectField } from '../../ui/fields.tsx';
import { typeOptions } from './BankForm.tsx';
import { useStackChange } from './useStackChange.ts';
import {
  bankIn,
  JOINING_WORDS,
  type LeadField,
  moduleIn,
  setJoining,
  unitIn,
  withFigure,
} from './bankEdits.ts';

const JOININGS = joiningSchema.options.map((value) => ({ value, label: JOINING_WORDS[value] }));
const SIZES = LEAD_SIZES_MM2.map((area) => ({ value: String(area), label: `${area} mm²` }));
const LENGTHS = [{ value: 'wall', label: 'as the routes on the wall plan are cut' }] as const;
const FITTED = [
  { value: 'yes', label: 'Fitted' },
  { value: 'taken-out', label: 'Taken out' },
] as const;

interface LeadFieldsProps {
  readonly label: string;
  readonly path: readonly string[];
  readonly lead: Conductor | undefined;
  readonly isBar?: boolean;
  readonly onTake: (lead: Conductor | undefined) => ReturnType<ReturnType<typeof useJob.getState>['change']>;
}

/** Length and size of a conductor. */
function LeadFields({ label, path, lead, isBar = false, onTake }: LeadFieldsProps) {
  const { canEdit } = useOpenJob();
  return (
    <>
      <NumberField
        label={`${label}, ${isBar ? 'between places' : 'one pole'}`}
        unit="m"
        path={[...path, 'lengthM']}
        value={lead?.lengthM}
        disabled={!canEdit}
        onTake={(value) => onTake(withFigure(lead, 'lengthM', value))}
      />
      {isBar ? (
        <NumberField
          label="Cross-section of the bar"
          unit="mm²"
          path={[...path, 'areaMm2']}
          value={lead?.areaMm2}
          disabled={!canEdit}
          onTake={(value) => onTake(withFigure(lead, 'areaMm2', value))}
        />
      ) : (
        <SelectField
          label="Size, flexible copper"
          path={[...path, 'areaMm2']}
          value={lead?.areaMm2 === undefined ? undefined : String(lead.areaMm2)}
          options={SIZES}
          disabled={!canEdit}
          onTake={(value) =>
            void onTake(withFigure(lead, 'areaMm2', value === undefined ? undefined : Number(value)))
          }
        />
      )}
    </>
  );
}

/** How the bank is joined, and by what. */
export function JoiningForm({ stack }: { readonly stack: Stack }) {
  const { design, canEdit } = useOpenJob();
  const { changeBank } = useStackChange(stack.id);
  const change = useJob((store) => store.change);
  const bank = typeof stack.bank === 'object' ? stack.bank : undefined;
  if (bank === undefined) return null;
  const path = ['stacks', stack.id, 'bank'];
  const takeLead = (field: LeadField, label: string) => (lead: Conductor | undefined) =>
    change(label, (draft) => {
      const target = bankIn(draft, stack.id);
      if (target !== undefined) put(target, field, lead);
    });
  const onBars = bank.joining?.startsWith('bars') === true || bank.joining === 'groups-on-bar';
  return (
    <div className="grid grid-cols-2 gap-x-3 gap-y-1 md:grid-cols-4">
      <div className="col-span-2">
        <SelectField
          label="How the modules are joined"
          path={[...path, 'joining']}
          value={bank.joining}
          options={JOININGS}
          disabled={!canEdit}
          onTake={(value) =>
            change('How the modules are joined', (draft) => setJoining(draft, stack.id, value))
          }
        />
      </div>
      <LeadFields
        label={onBars && bank.joining !== 'groups-on-bar' ? 'Lead, module to bar' : 'Lead, module to module'}
        path={[...path, 'lead']}
        lead={bank.lead}
        onTake={takeLead('lead', 'Module lead')}
      />
      {bank.joining === 'groups-on-bar' && (
        <>
          <NumberField
            label="Modules in a group"
            unit=""
            path={[...path, 'groupSize']}
            value={bank.groupSize}
            disabled={!canEdit}
            onTake={(value) =>
              change('Modules in a group', (draft) => {
                const target = bankIn(draft, stack.id);
                if (target !== undefined) put(target, 'groupSize', value);
              })
            }
          />
          <span className="max-md:hidden" />
          <LeadFields
            label="Lead, group to bar"
            path={[...path, 'groupLead']}
            lead={bank.groupLead}
            onTake={takeLead('groupLead', 'Group lead')}
          />
        </>
      )}
      {onBars && (
        <div className="col-span-2">
          <SelectField
            label="Combiner bar"
            path={[...path, 'barTypeId']}
            value={bank.barTypeId}
            options={typeOptions(design, 'combiner-bar')}
            emptyLabel="made on site: figures below"
            disabled={!canEdit}
            onTake={(value) => void changeBank('Combiner bar', (target) => put(target, 'barTypeId', value))}
          />
        </div>
      )}
      {onBars && bank.barTypeId === undefined && (
        <LeadFields
          label="Bar"
          isBar
          path={[...path, 'barSegment']}
          lead={bank.barSegment}
          onTake={takeLead('barSegment', 'Bar')}
        />
      )}
      <div className="col-span-2">
        <SelectField
          label="Lengths of the leads"
          path={[...path, 'lengthsFrom']}
          value={bank.lengthsFrom}
          options={LENGTHS}
          emptyLabel="as typed here"
          disabled={!canEdit}
          onTake={(value) =>
            void changeBank('Lengths of the leads', (target) => put(target, 'lengthsFrom', value))
          }
        />
      </div>
      <LeadFields
        label="Lead, inverter to bank"
        path={[...path, 'inverterLead']}
        lead={bank.inverterLead}
        onTake={takeLead('inverterLead', 'Inverter lead')}
      />
    </div>
  );
}

function ModuleRow({
  stack,
  module,
  number,
  isChosen,
}: {
  stack: Stack;
  module: Module;
  number: number;
  isChosen: boolean;
}) {
  const { canEdit } = useOpenJob();
  const change = useJob((store) => store.change);
  const path = ['stacks', stack.id, 'bank', 'modules', module.id];
  const changeIt = (label: string, recipe: (target: Module) => void) =>
    change(`${label} of module ${number}`, (draft) => {
      const target = moduleIn(draft, stack.id, module.id);
      if (target !== undefined) recipe(target);
    });
  return (
    <fieldset
      className={`grid grid-cols-2 gap-x-3 border-t border-rule py-1 md:grid-cols-5 ${isChosen ? 'bg-chosen' : ''}`}
    >
      <legend className="sr-only">Module {number}</legend>
      <NumberField
        label={`Module ${number}: own lead`}
        unit="m"
        path={[...path, 'lead']}
        value={module.lead?.lengthM}
        disabled={!canEdit}
        onTake={(value) =>
          changeIt('Lead', (target) => put(target, 'lead', withFigure(target.lead, 'lengthM', value)))
        }
      />
      <SelectField
        label="Its size"
        path={[...path, 'lead', 'areaMm2']}
        value={module.lead?.areaMm2 === undefined ? undefined : String(module.lead.areaMm2)}
        options={SIZES}
        disabled={!canEdit}
        onTake={(value) =>
          void changeIt('Lead size', (target) =>
            put(
              target,
              'lead',
              withFigure(target.lead, 'areaMm2', value === undefined ? undefined : Number(value)),
            ),
          )
        }
      />
      <NumberField
        label="State of charge"
        unit="%"
        scale={100}
        path={[...path, 'stateOfCharge']}
        value={module.stateOfCharge}
        disabled={!canEdit}
        onTake={(value) => changeIt('State of charge', (target) => put(target, 'stateOfCharge', value))}
      />
      <NumberField
        label="Inner resistance, times"
        unit="×"
        path={[...path, 'resistanceFactor']}
        value={module.resistanceFactor}
        disabled={!canEdit}
        onTake={(value) => changeIt('Resistance', (target) => put(target, 'resistanceFactor', value))}
      />
      <SelectField
        label="In the bank"
        path={[...path, 'fitted']}
        value={module.fitted ?? 'yes'}
        options={FITTED}
        disabled={!canEdit}
        onTake={(value) =>
          void changeIt('In the bank', (target) =>
            put(target, 'fitted', value === 'taken-out' ? value : undefined),
          )
        }
      />
    </fieldset>
  );
}

/** Modules and inverters one by one: what differs from the others. */
export function OneByOne({
  stack,
  chosenId,
}: {
  readonly stack: Stack;
  readonly chosenId: string | undefined;
}) {
  const { canEdit } = useOpenJob();
  const change = useJob((store) => store.change);
  const bank = typeof stack.bank === 'object' ? stack.bank : undefined;
  if (bank === undefined) return null;
  const onBars = bank.joining?.startsWith('bars') === true || bank.joining === 'groups-on-bar';
  return (
    <details className="mt-2" open={chosenId !== undefined || undefined}>
      <summary className="font-semibold">Modules and inverters one by one</summary>
      {stack.units.map((unit, index) => (
        <fieldset key={unit.id} className="grid grid-cols-2 gap-x-3 border-t border-rule py-1 md:grid-cols-5">
          <legend className="sr-only">Inverter {index + 1}</legend>
          <NumberField
            label={`Inverter ${index + 1}: own lead`}
            unit="m"
            path={['stacks', stack.id, 'units', unit.id, 'batteryLead']}
            value={unit.batteryLead?.lengthM}
            disabled={!canEdit}
            onTake={(value) =>
              change(`Battery lead of inverter ${index + 1}`, (draft) => {
                const target = unitIn(draft, stack.id, unit.id);
                if (target !== undefined)
                  put(target, 'batteryLead', withFigure(target.batteryLead, 'lengthM', value));
              })
            }
          />
          {onBars && (
            <NumberField
              label="Place on the bars"
              unit=""
              path={['stacks', stack.id, 'units', unit.id, 'barPlace']}
              value={unit.barPlace}
              disabled={!canEdit}
              onTake={(value) =>
                change(`Place of inverter ${index + 1}`, (draft) => {
                  const target = unitIn(draft, stack.id, unit.id);
                  if (target !== undefined) put(target, 'barPlace', value);
                })
              }
            />
          )}
        </fieldset>
      ))}
      {bank.modules.map((module, index) => (
        <ModuleRow
          key={module.id}
          stack={stack}
          module={module}
          number={index + 1}
          isChosen={module.id === chosenId}
        />
      ))}
    </details>
  );
}
