import { chooseSupply, type Site, type SupplyKind } from '@bastion/core';
import type { ReactNode } from 'react';
import { put } from '../../state/put.ts';
import { useJob, useOpenJob } from '../../state/job.ts';
import { NumberField, SelectField, TextField } from '../../ui/fields.tsx';
import { PlanningLimits } from './PlanningLimits.tsx';
import { SiteTabs } from './SiteTabs.tsx';
import { SupplyVectors } from './SupplyVectors.tsx';

const SUPPLIES = [
  { value: 'single-phase', label: 'Single-phase' },
  { value: 'split-phase', label: 'Split-phase' },
  { value: 'three-phase', label: 'Three-phase' },
] as const;
const EARTHINGS = [
  { value: 'TN-S', label: 'TN-S: separate neutral and earth' },
  { value: 'TN-C-S', label: 'TN-C-S: combined in the supply' },
  { value: 'TT', label: 'TT: own electrode' },
  { value: 'IT', label: 'IT: isolated supply' },
] as const;
const PROFILES = [
  { value: 'metric', label: 'Metric (IEC)' },
  { value: 'north-american', label: 'North American' },
] as const;
const FREQUENCIES = [
  { value: '50', label: '50 Hz' },
  { value: '60', label: '60 Hz' },
] as const;
const BYPASS = [
  { value: 'yes', label: 'Yes' },
  { value: 'none', label: 'None' },
] as const;

type NumberKey = {
  [K in keyof Site]-?: NonNullable<Site[K]> extends number
    ? number extends NonNullable<Site[K]>
      ? K
      : never
    : never;
}[keyof Site];

function SiteNumber({
  field,
  label,
  unit,
  hint,
}: {
  readonly field: NumberKey;
  readonly label: string;
  readonly unit: string;
  readonly hint?: string;
}) {
  const { design, canEdit } = useOpenJob();
  const change = useJob((store) => store.change);
  return (
    <NumberField
      label={label}
      unit={unit}
      path={['site', field]}
      value={design.site[field]}
      disabled={!canEdit}
      {...(hint === undefined ? {} : { hint })}
      onTake={(value) => change(label, (draft) => put(draft.site, field, value))}
    />
  );
}

function Group({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  return (
    <fieldset className="sheet p-4">
      <legend className="px-1 text-[15px] font-semibold">{title}</legend>
      <div className="grid gap-x-5 gap-y-2 sm:grid-cols-2">{children}</div>
    </fieldset>
  );
}

function SupplyGroup() {
  const { design, canEdit } = useOpenJob();
  const { site } = design;
  const change = useJob((store) => store.change);
  const tell = useJob((store) => store.tell);
  const takeSupply = (supply: SupplyKind | undefined): void => {
    const { design: next, lost } = chooseSupply(design, supply);
    change('Supply', (draft) => void Object.assign(draft, next));
    if (lost > 0)
      tell(
        `${lost} circuits or units stood on lines that this supply does not have. Give them a line in Loads and Stack.`,
      );
  };
  return (
    <Group title="Supply">
      <SelectField
        label="Supply"
        path={['site', 'supply']}
        value={site.supply}
        options={SUPPLIES}
        disabled={!canEdit}
        onTake={takeSupply}
      />
      <SiteNumber field="lineVoltageV" label="Voltage, line to neutral" unit="V" />
      <SelectField
        label="Frequency"
        path={['site', 'frequencyHz']}
        value={site.frequencyHz === undefined ? undefined : site.frequencyHz === 50 ? '50' : '60'}
        options={FREQUENCIES}
        disabled={!canEdit}
        onTake={(value) =>
          change('Frequency', (draft) =>
            put(draft.site, 'frequencyHz', value === undefined ? undefined : value === '50' ? 50 : 60),
          )
        }
      />
      <SiteNumber field="serviceRatingA" label="Service rating, each line" unit="A" />
      <SelectField
        label="Earthing"
        path={['site', 'earthing']}
        value={site.earthing}
        options={EARTHINGS}
        disabled={!canEdit}
        onTake={(value) => change('Earthing', (draft) => put(draft.site, 'earthing', value))}
      />
      <SiteNumber field="prospectiveFaultA" label="Prospective fault current" unit="A" />
      <SelectField
        label="Code profile"
        path={['site', 'codeProfile']}
        value={site.codeProfile}
        options={PROFILES}
        disabled={!canEdit}
        onTake={(value) => change('Code profile', (draft) => put(draft.site, 'codeProfile', value))}
      />
      <SelectField
        label="Grid"
        path={['site', 'grid']}
        value={site.grid === 'none' ? 'none' : undefined}
        options={[{ value: 'none', label: 'none: the site makes its own' }]}
        emptyLabel="connected"
        disabled={!canEdit}
        onTake={(value) => change('Grid', (draft) => put(draft.site, 'grid', value))}
      />
      <SelectField
        label="Maintenance bypass"
        path={['site', 'maintenanceBypass']}
        value={site.maintenanceBypass}
        options={BYPASS}
        disabled={!canEdit}
        onTake={(value) =>
          change('Maintenance bypass', (draft) => put(draft.site, 'maintenanceBypass', value))
        }
      />
    </Group>
  );
}

/** Where the work is: the supply drawn as vectors with its figures beside it, the climate, and what is asked for. */
export function SiteStage() {
  const { design, canEdit } = useOpenJob();
  const change = useJob((store) => store.change);
  return (
    <div className="max-w-5xl">
      <SiteTabs />
      <h2 className="sr-only">Site</h2>
      <div className="grid gap-4 lg:grid-cols-[260px_1fr]">
        <div className="sheet flex items-center justify-center p-3">
          <SupplyVectors supply={design.site.supply} lineVoltageV={design.site.lineVoltageV} />
        </div>
        <SupplyGroup />
      </div>
      <div className="mt-4 grid gap-4 lg:grid-cols-2">
        <Group title="Climate and place">
          <SiteNumber field="lowestC" label="Record low outdoors" unit="°C" />
          <SiteNumber field="highestC" label="Record high outdoors" unit="°C" />
          <SiteNumber field="equipmentLowestC" label="Coldest air at the equipment" unit="°C" />
          <SiteNumber
            field="equipmentHighestC"
            label="Hottest air at the equipment"
            unit="°C"
            hint="Derates the inverters."
          />
          <SiteNumber field="altitudeM" label="Altitude" unit="m" />
          <SiteNumber
            field="latitudeDeg"
            label="Latitude"
            unit="°"
            hint="North is positive. For the sun in a rehearsal."
          />
        </Group>
        <Group title="Job">
          <TextField
            label="Name"
            path={['name']}
            value={design.name}
            disabled={!canEdit}
            onTake={(value) => change('Name', (draft) => void (draft.name = value))}
          />
          <SiteNumber field="targetAutonomyH" label="Hours the backed-up load should last" unit="h" />
          <SiteNumber field="outageStartH" label="Look at an outage from (hour of the day)" unit="h" />
        </Group>
      </div>
      <PlanningLimits />
    </div>
  );
}
