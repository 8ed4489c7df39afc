import {
  type CableLine,
  cableLines,
  counted,
  inRegion,
  type Schedule,
  SCHEDULE_KINDS,
  type ScheduleKind,
  type ScheduleRow,
  scheduleOf,
  scheduleSheet,
  sizeLine,
  type Wiring,
} from '@bastion/core';
import type { VisibilityState } from '@tanstack/react-table';
import { Columns3, Download, Printer } from 'lucide-react';
import { DropdownMenu, Tabs } from 'radix-ui';
import { type ReactNode, useMemo, useState } from 'react';
import { Link } from 'react-router';
import { catalogueNow } from '../../../state/catalogue.ts';
import { downloadSheet } from '../../../state/downloadSheet.ts';
import { useJob, useOpenJob } from '../../../state/job.ts';
import { useLengthUnit } from '../../../state/lengthUnit.ts';
import { noteExport } from '../../../state/noteExport.ts';
import { setCableFigure } from './cableEdits.ts';
import { DevicesForm } from './DevicesForm.tsx';
import { FittingsForm } from './FittingsForm.tsx';
import { CommsForm, LinkDetail } from './LinkDetail.tsx';
import { ConductorDetail } from './ConductorDetail.tsx';
import { LayingForm } from './LayingForm.tsx';
import { ScheduleTable } from './ScheduleTable.tsx';
import { ScheduleTotals } from './ScheduleTotals.tsx';
import { TerminalForm } from './TerminalForm.tsx';
import { SettingsForm } from './SettingsForm.tsx';
import { TableValues } from './TableValues.tsx';
import { useConductors, useSchedule } from './useSchedule.ts';
import { VanForm } from './VanForm.tsx';

export const KIND_TITLES: Readonly<Record<ScheduleKind, string>> = {
  conductors: 'Conductors',
  terminations: 'Terminations',
  comms: 'Comms',
  sensors: 'Sensors',
  devices: 'Devices',
  settings: 'Settings',
  cuts: 'Cut list',
  parts: 'Parts',
  labels: 'Labels',
  fittings: 'Conduits, splices',
  'as-built': 'As built',
};

/** What a row opened tells anyway. */
const HIDDEN_AT_FIRST: Readonly<Partial<Record<ScheduleKind, VisibilityState>>> = {
  conductors: { laid: false, because: false, van: false },
};

function ColumnMenu({
  schedule,
  hidden,
  onChange,
}: {
  readonly schedule: Schedule;
  readonly hidden: VisibilityState;
  readonly onChange: (hidden: VisibilityState) => void;
}) {
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className="button">
        <Columns3 size={15} aria-hidden="true" /> Columns
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content className="sheet z-40 p-1 text-[14px]" align="end">
          {schedule.columns.map(({ key, title }) => (
            <DropdownMenu.CheckboxItem
              key={key}
              className="flex cursor-default gap-2 rounded-sm px-2 py-0.5 data-[highlighted]:bg-chosen"
              checked={hidden[key] !== false}
              onSelect={(event) => event.preventDefault()}
              onCheckedChange={(isShown) => onChange({ ...hidden, [key]: isShown })}
            >
              <span className="w-4">
                <DropdownMenu.ItemIndicator>✓</DropdownMenu.ItemIndicator>
              </span>
              {title}
            </DropdownMenu.CheckboxItem>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

/** The smallest size for every cable that has none: one step, and one undo. */
function TakeAll({ lines }: { readonly lines: ReadonlyMap<string, CableLine> }) {
  const { analysis, canEdit } = useOpenJob();
  const change = useJob((store) => store.change);
  const open = useMemo(
    () =>
      [...lines.values()].flatMap((line) => {
        if (line.areaMm2.known) return [];
        const sized = sizeLine(analysis.installation, line);
        return sized?.known === true && sized.value.smallest.kind === 'found'
          ? [{ line, areaMm2: sized.value.smallest.areaMm2 }]
          : [];
      }),
    [lines, analysis.installation],
  );
  if (!canEdit || open.length === 0) return null;
  return (
    <p className="no-print">
      <button
        type="button"
        className="button h-auto! py-1 whitespace-normal"
        onClick={() =>
          void change(`Smallest size for ${open.length} cables`, (draft) => {
            for (const { line, areaMm2 } of open) setCableFigure(draft, line, 'areaMm2', areaMm2);
          })
        }
      >
        Take the smallest size for the {open.length} {open.length === 1 ? 'cable' : 'cables'} without one
      </button>
    </p>
  );
}

/** Sheets hold everything, also what the screen has not come to yet. */
function Sheets({ schedule }: { readonly schedule: Schedule }) {
  const { design, analysis } = useOpenJob();
  const unit = useLengthUnit();
  const whole = (): Schedule =>
    inRegion(
      scheduleOf(schedule.kind, { design, catalogue: catalogueNow(), installation: analysis.installation }),
      unit,
    );
  const file = `${design.name} ${schedule.title}`.toLowerCase().replace(/[^a-z0-9]+/g, '-');
  return (['csv', 'xlsx'] as const).map((kind) => (
    <button
      key={kind}
      type="button"
      className="button"
      onClick={() => {
        noteExport(kind);
        const { totals, ...own } = whole();
        void downloadSheet(scheduleSheet(own), kind, {
          file: `${file}.${kind}`,
          title: schedule.title,
          further: totals === undefined ? [] : [{ title: totals.title, rows: scheduleSheet(totals) }],
        });
      }}
    >
      <Download size={15} aria-hidden="true" /> {kind.toUpperCase()}
    </button>
  ));
}

interface ScheduleProps {
  readonly chosen: ReadonlySet<string>;
  readonly onPick: (partIds: readonly string[]) => void;
}

/** The conductors, sized a little at a time: a job may have more of them than one picture has time for. */
function Conductors(props: ScheduleProps) {
  const { analysis } = useOpenJob();
  const { schedule, left } = useConductors();
  const lines = useMemo((): ReadonlyMap<string, CableLine> => {
    const found = cableLines(analysis.installation);
    return new Map(found.known ? found.value.map((line) => [line.id, line]) : []);
  }, [analysis.installation]);
  return (
    <ScheduleView
      {...props}
      schedule={schedule}
      detail={(row) => {
        const line = lines.get(row.id);
        return line === undefined ? null : <ConductorDetail line={line} />;
      }}
    >
      <LayingForm />
      <TableValues />
      {left === 0 ? (
        <TakeAll lines={lines} />
      ) : (
        <p className="text-quiet" role="status">
          {counted(left, 'cable')} still to be sized…
        </p>
      )}
    </ScheduleView>
  );
}

/** What a row of a schedule opens into, where somebody can say something of it. */
function detailOf(kind: ScheduleKind): { readonly detail?: (row: ScheduleRow) => ReactNode } {
  if (kind === 'comms') return { detail: (row) => <LinkDetail linkId={row.id} /> };
  if (kind === 'terminations')
    return {
      detail: ({ portId }) =>
        portId === undefined ? (
          <p className="p-2">What it takes is stated by the type of the device.</p>
        ) : (
          <TerminalForm portId={portId} />
        ),
    };
  return {};
}

function OtherSchedule({ kind, ...props }: ScheduleProps & { readonly kind: ScheduleKind }) {
  return (
    <ScheduleView {...props} schedule={useSchedule(kind)} {...detailOf(kind)}>
      {kind === 'cuts' && <VanForm />}
      {kind === 'comms' && <CommsForm />}
      {kind === 'settings' && <SettingsForm />}
      {kind === 'fittings' && <FittingsForm />}
      {kind === 'devices' && <DevicesForm />}
    </ScheduleView>
  );
}

function ScheduleView({
  schedule,
  chosen,
  onPick,
  detail,
  children,
}: ScheduleProps & {
  readonly schedule: Schedule;
  readonly detail?: (row: ScheduleRow) => ReactNode;
  readonly children: ReactNode;
}) {
  const { id } = useOpenJob();
  const { kind } = schedule;
  const [filter, setFilter] = useState('');
  const [hidden, setHidden] = useState<VisibilityState>(HIDDEN_AT_FIRST[kind] ?? {});
  const [openId, setOpenId] = useState<string>();
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-2">
      {children}
      <OnSite kind={kind} />
      <div className="no-print flex flex-wrap items-center gap-1.5">
        <input
          className="input w-52!"
          type="search"
          aria-label={`Filter ${schedule.title}`}
          placeholder="Filter"
          value={filter}
          onChange={({ target }) => setFilter(target.value)}
        />
        <ColumnMenu schedule={schedule} hidden={hidden} onChange={setHidden} />
        <Sheets schedule={schedule} />
        <Link className="button" to={`/jobs/${id}/wiring/${kind}`}>
          <Printer size={15} aria-hidden="true" /> As a page
        </Link>
      </div>
      {schedule.notes.map((note) => (
        <p key={note} className="text-[13px] text-quiet">
          {note}
        </p>
      ))}
      <ScheduleTotals totals={schedule.totals} />
      <ScheduleTable
        schedule={schedule}
        filter={filter}
        hidden={hidden}
        chosen={chosen}
        onPick={onPick}
        openId={openId}
        onOpen={setOpenId}
        {...(detail === undefined ? {} : { detail })}
      />
    </div>
  );
}

/** Schedules that hands work from, with the page that is made for them, and what the job asks a photo of. */
const ON_SITE: Readonly<
  Partial<Record<ScheduleKind, { readonly page: string; readonly words: string; readonly gate?: PhotoGate }>>
> = {
  terminations: { page: 'landing', words: 'On site, port by port', gate: 'terminations' },
  comms: { page: 'links', words: 'On site, cable by cable', gate: 'comms' },
  settings: { page: 'read-back', words: 'On site, device by device', gate: 'settings' },
  'as-built': { page: 'built', words: 'On site, part by part' },
};
type PhotoGate = NonNullable<Wiring['photoGates']>[number];

function OnSite({ kind }: { readonly kind: ScheduleKind }) {
  const { id, design, canEdit } = useOpenJob();
  const change = useJob((store) => store.change);
  const page = ON_SITE[kind];
  if (page === undefined) return null;
  const { gate } = page;
  const gates = design.wiring?.photoGates ?? [];
  return (
    <p className="no-print flex flex-wrap items-center gap-4">
      <Link className="button" to={`/jobs/${id}/wiring/${page.page}`}>
        {page.words}
      </Link>
      {gate !== undefined && (
        <label className="flex items-center gap-1.5">
          <input
            type="checkbox"
            checked={gates.includes(gate)}
            disabled={!canEdit}
            onChange={({ target }) =>
              void change('Photos asked for', (draft) => {
                const others = gates.filter((one) => one !== gate);
                draft.wiring ??= {};
                draft.wiring.photoGates = target.checked ? [...others, gate] : others;
              })
            }
          />
          Each counts only with a photo
        </label>
      )}
    </p>
  );
}

/** The schedules under the drawing: a tab for each. A row opened inks its cable, a part picked filters the rows. */
export function SchedulePanel({
  chosen,
  onPick,
}: {
  readonly chosen: ReadonlySet<string>;
  readonly onPick: (partIds: readonly string[]) => void;
}) {
  const [kind, setKind] = useState<ScheduleKind>('conductors');
  return (
    <section className="sheet p-3" data-field="wiring" tabIndex={-1}>
      <h3 className="sr-only">Schedules</h3>
      <Tabs.Root
        value={kind}
        onValueChange={(value) => setKind(SCHEDULE_KINDS.find((one) => one === value) ?? 'conductors')}
      >
        <Tabs.List className="no-print mb-2 flex flex-wrap gap-1 border-b border-rule" aria-label="Schedules">
          {SCHEDULE_KINDS.map((one) => (
            <Tabs.Trigger
              key={one}
              value={one}
              className="border-b-2 border-transparent px-2 py-1 text-touch data-[state=active]:border-touch data-[state=active]:font-semibold data-[state=active]:text-ink"
            >
              {KIND_TITLES[one]}
            </Tabs.Trigger>
          ))}
        </Tabs.List>
        <Tabs.Content value={kind}>
          {kind === 'conductors' ? (
            <Conductors chosen={chosen} onPick={onPick} />
          ) : (
            <OtherSchedule key={kind} kind={kind} chosen={chosen} onPick={onPick} />
          )}
        </Tabs.Content>
      </Tabs.Root>
    </section>
  );
}
