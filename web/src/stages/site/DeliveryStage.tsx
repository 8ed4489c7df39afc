import {
  counted,
  type DeliveryGroup,
  type DeliveryLine,
  deliveryLines,
  type DeliveryTick,
  SAMPLE_TYPES,
} from '@bastion/core';
import { ToggleGroup } from 'radix-ui';
import { useJob, useOpenJob } from '../../state/job.ts';
import { tickOf } from '../../state/deliveryTick.ts';
import { useMayChangeNote } from '../../state/ownNote.ts';
import { put } from '../../state/put.ts';
import { TextField } from '../../ui/fields.tsx';
import { TickPhotos } from '../../ui/TickPhotos.tsx';
import { SiteTabs } from './SiteTabs.tsx';

const GROUPS: readonly { readonly key: DeliveryGroup; readonly title: string }[] = [
  { key: 'boxes', title: 'In the boxes' },
  { key: 'tools', title: 'Tools at hand' },
  { key: 'protection', title: 'Protective equipment' },
  { key: 'people', title: 'People' },
];
const STATES = [
  { value: 'ready', label: 'Ready' },
  { value: 'damaged', label: 'Damaged' },
  { value: 'missing', label: 'Missing' },
] as const;
type TickState = NonNullable<DeliveryTick['state']>;

function LineView({ line, tick }: { readonly line: DeliveryLine; readonly tick: DeliveryTick | undefined }) {
  const change = useJob((store) => store.change);
  const may = useMayChangeNote()(tick);
  const changeTick = (label: string, recipe: (tick: DeliveryTick) => void) =>
    change(`${label}: ${line.what}`, (draft) => recipe(tickOf(draft, line.id)));
  return (
    <li className="grid gap-1.5 border-t border-rule py-2" data-field={`delivery/${line.id}`}>
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1.5">
        <div className="min-w-56 flex-1">
          <p className="font-semibold">{line.what}</p>
          <p className="text-[13px] text-quiet">{line.details.join(' · ')}</p>
        </div>
        <ToggleGroup.Root
          type="single"
          aria-label={`${line.what}: found`}
          className="flex gap-1"
          value={tick?.state ?? ''}
          disabled={!may}
          onValueChange={(value) =>
            changeTick('Delivery', (target) =>
              put(target, 'state', STATES.find((one) => one.value === value)?.value),
            )
          }
        >
          {STATES.map(({ value, label }) => (
            <ToggleGroup.Item
              key={value}
              value={value}
              className="button data-[state=on]:bg-chosen data-[state=on]:font-bold"
            >
              {tick?.state === value && <span aria-hidden="true">{MARK[value]}</span>} {label}
            </ToggleGroup.Item>
          ))}
        </ToggleGroup.Root>
        <TickPhotos lineId={line.id} what={line.what} tick={tick} may={may} />
      </div>
      <div className="flex flex-wrap items-center gap-2">
        <div className="min-w-48 flex-1">
          <TextField
            label="Note"
            path={['delivery', line.id, 'note']}
            value={tick?.note ?? ''}
            disabled={!may}
            onTake={(value) =>
              changeTick('Note', (target) => put(target, 'note', value === '' ? undefined : value))
            }
          />
        </div>
      </div>
      {tick?.by !== undefined && (
        <p className="text-[13px] text-quiet">
          {tick.by}
          {tick.at !== undefined && `, ${new Date(tick.at).toLocaleString()}`}
          {!may && ' – they, or a designer, can change it'}
        </p>
      )}
    </li>
  );
}
const MARK: Record<TickState, string> = { ready: '✓', damaged: '!', missing: '✕' };

/** The delivery and preparation lists: made from the design, ticked on site, with notes and photos. */
export function DeliveryStage() {
  const { design } = useOpenJob();
  const lines = deliveryLines(design, SAMPLE_TYPES);
  const ticks = new Map(design.delivery.map((tick) => [tick.id, tick]));
  const stateOf = (line: DeliveryLine): TickState | undefined => ticks.get(line.id)?.state;
  const open = lines.filter((line) => stateOf(line) === undefined).length;
  const bad = lines.filter((line) => stateOf(line) === 'damaged' || stateOf(line) === 'missing').length;
  return (
    <div className="max-w-4xl">
      <SiteTabs />
      <h2>Delivery and preparation</h2>
      {lines.length === 0 ? (
        <p className="sheet mt-2 p-4">
          The list follows from the stack: choose inverters and battery in Stack, and it appears here.
        </p>
      ) : (
        <>
          <p className="mt-1">
            {open === 0
              ? 'Everything was looked at'
              : `${counted(open, 'line')} of ${lines.length} not looked at`}
            {bad > 0 && <strong className="text-over">, {bad} damaged or missing</strong>}. Do not start with
            damaged equipment; a battery that was dropped, wet or swollen stays outdoors and away from people.
          </p>
          <div className="field-page mt-3 grid gap-3">
            {GROUPS.map(({ key, title }) => (
              <section key={key} className="sheet p-3" aria-label={title}>
                <h3 className="font-semibold">{title}</h3>
                <ul>
                  {lines
                    .filter((line) => line.group === key)
                    .map((line) => (
                      <LineView key={line.id} line={line} tick={ticks.get(line.id)} />
                    ))}
                </ul>
              </section>
            ))}
          </div>
        </>
      )}
    </div>
  );
}
