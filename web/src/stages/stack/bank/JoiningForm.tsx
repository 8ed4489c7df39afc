import { type Bank, type Conductor, joiningSchema, type Stack } from '@bastion/core';
import { useJob, useOpenJob } from '../../../state/job.ts';
import { put } from '../../../state/put.ts';
import { NumberField, SelectField } from '../../../ui/fields.tsx';
import { typeOptions } from './BankForm.tsx';
import { JOINING_WORDS, type LeadField, setJoining } from './bankEdits.ts';
import { LeadFields } from './LeadFields.tsx';
import { useStackChange } from '../useStackChange.ts';

const JOININGS = joiningSchema.options.map((value) => ({ value, label: JOINING_WORDS[value] }));
const TAKE_OFFS = [
  { value: 'diagonal', label: 'at opposite ends' },
  { value: 'same-end', label: 'both at the first module' },
] as const;
const LENGTHS = [{ value: 'wall', label: 'as the routes on the wall plan are cut' }] as const;

/** Groups whose leads to the bar differ from the others. */
function GroupLeads({ stack, bank }: { readonly stack: Stack; readonly bank: Bank }) {
  const { changeBank } = useStackChange(stack.id);
  const groups = Math.ceil(bank.modules.length / (bank.groupSize ?? bank.modules.length));
  if (groups > 16) return null;
  return Array.from({ length: groups }, (_, at) => at + 1).map((number) => {
    const own = bank.groups?.find((one) => one.number === number);
    return (
      <LeadFields
        key={number}
        label={`Own lead of group ${number}`}
        path={['stacks', stack.id, 'bank', 'groups', own?.id ?? String(number), 'lead']}
        lead={own?.lead}
        onTake={(lead) =>
          changeBank(`Lead of group ${number}`, (target) => {
            const others = (target.groups ?? []).filter((one) => one.number !== number);
            const groupsNow = lead === undefined ? others : [...others, { id: `g${number}`, number, lead }];
            put(target, 'groups', groupsNow.length === 0 ? undefined : groupsNow);
          })
        }
      />
    );
  });
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
    changeBank(label, (target) => put(target, field, lead));
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
            onTake={(value) => changeBank('Modules in a group', (target) => put(target, 'groupSize', value))}
          />
          <span className="max-md:hidden" />
          <LeadFields
            label="Lead, group to bar"
            path={[...path, 'groupLead']}
            lead={bank.groupLead}
            onTake={takeLead('groupLead', 'Group lead')}
          />
          <SelectField
            label="Groups are taken off"
            path={[...path, 'groupTakeOff']}
            value={bank.groupTakeOff}
            options={TAKE_OFFS}
            emptyLabel="at opposite ends"
            disabled={!canEdit}
            onTake={(value) =>
              void changeBank('Take-off of the groups', (target) => put(target, 'groupTakeOff', value))
            }
          />
          <span className="max-md:hidden" />
          <GroupLeads stack={stack} bank={bank} />
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
      <NumberField
        label="Leads run at"
        unit="°C"
        path={[...path, 'leadC']}
        value={bank.leadC}
        absent="as planned"
        disabled={!canEdit}
        onTake={(value) => changeBank('Temperature of the leads', (target) => put(target, 'leadC', value))}
      />
      {onBars && (
        <NumberField
          label="Bars run at"
          unit="°C"
          path={[...path, 'barC']}
          value={bank.barC}
          absent="as the leads"
          disabled={!canEdit}
          onTake={(value) => changeBank('Temperature of the bars', (target) => put(target, 'barC', value))}
        />
      )}
    </div>
  );
}
