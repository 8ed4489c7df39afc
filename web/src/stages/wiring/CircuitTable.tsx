import {
  type CodeProfileName,
  type Circuit,
  leadSizeWords,
  lengthIn,
  type LengthUnit,
  metresIn,
  readLeadSize,
} from '@bastion/core';
import { memo, useMemo, useState } from 'react';
import { useLocation } from 'react-router';
import { useJob, useOpenJob } from '../../state/job.ts';
import { useLengthUnit } from '../../state/lengthUnit.ts';
import { put } from '../../state/put.ts';
import { FigureCell } from './FigureCell.tsx';
import { ShowAll } from './ShowAll.tsx';
import { deviceTypes } from './LineDevices.tsx';
import { type DeviceType, TypeOptions } from './TypeOptions.tsx';

const CURVES = ['B', 'C', 'D', 'gG', 'aR'] as const;

interface CircuitRowProps {
  readonly circuit: Circuit;
  readonly board: string;
  readonly types: readonly DeviceType[];
  readonly canEdit: boolean;
  readonly lengthUnit: LengthUnit;
  readonly profile: CodeProfileName | undefined;
}

/** What a size alone is in the job, and the size without it. */
const sizeUnit = (profile: CodeProfileName | undefined): string =>
  profile === 'north-american' ? 'AWG or kcmil' : 'mm²';
const sizeShown = (areaMm2: number, profile: CodeProfileName | undefined): string =>
  profile === 'north-american' ? leadSizeWords(areaMm2) : leadSizeWords(areaMm2).replace(' mm²', '');

/** A circuit is the same object until somebody changes it: its row is drawn again only then. */
const CircuitRow = memo(function CircuitRow({
  circuit,
  board,
  types,
  canEdit,
  lengthUnit,
  profile,
}: CircuitRowProps) {
  const change = useJob((store) => store.change);
  const edit = (label: string, recipe: (one: Circuit) => void) =>
    change(`${label}: ${circuit.name}`, (draft) => {
      const target = draft.circuits.find(({ id }) => id === circuit.id);
      if (target !== undefined) recipe(target);
    });
  const field = `circuits/${circuit.id}`;
  return (
    <tr className="border-t border-rule">
      <th scope="row" className="py-0.5 pr-3 text-left font-normal">
        {circuit.name}
      </th>
      <td className="pr-3 text-quiet">{board}</td>
      <td className="pr-2">
        <select
          className="input"
          aria-label={`Device type of ${circuit.name}`}
          data-field={`${field}/device/typeId`}
          disabled={!canEdit}
          value={circuit.device?.typeId ?? ''}
          onChange={({ target }) =>
            edit('Device', (one) => {
              one.device ??= {};
              put(one.device, 'typeId', target.value === '' ? undefined : target.value);
            })
          }
        >
          <TypeOptions types={types} isDc={false} />
        </select>
      </td>
      <td className="pr-2">
        <FigureCell
          label={`Device rating of ${circuit.name}, A`}
          field={`${field}/device/ratedA`}
          value={circuit.device?.ratedA}
          disabled={!canEdit || circuit.device?.typeId !== undefined}
          onTake={(value) =>
            edit('Device rating', (one) => {
              one.device ??= {};
              put(one.device, 'ratedA', value);
            })
          }
        />
      </td>
      <td className="pr-2">
        <select
          className="input w-28!"
          aria-label={`Curve of ${circuit.name}`}
          data-field={`${field}/device/curve`}
          disabled={!canEdit || circuit.device?.typeId !== undefined}
          value={circuit.device?.curve ?? ''}
          onChange={({ target }) =>
            edit('Curve', (one) => {
              one.device ??= {};
              put(
                one.device,
                'curve',
                CURVES.find((curve) => curve === target.value),
              );
            })
          }
        >
          <option value="">not known</option>
          {CURVES.map((curve) => (
            <option key={curve} value={curve}>
              {curve}
            </option>
          ))}
        </select>
      </td>
      <td className="pr-2">
        <FigureCell
          label={`Cable size of ${circuit.name}, ${sizeUnit(profile)}`}
          field={`${field}/cable/areaMm2`}
          value={circuit.cable?.areaMm2}
          read={(text) => readLeadSize(text, profile)}
          show={(area) => sizeShown(area, profile)}
          disabled={!canEdit}
          onTake={(value) =>
            edit('Cable size', (one) => {
              one.cable ??= {};
              put(one.cable, 'areaMm2', value);
            })
          }
        />
      </td>
      <td>
        <FigureCell
          label={`Cable length of ${circuit.name}, ${lengthUnit}`}
          read={(text) => metresIn(text, lengthUnit)}
          show={(metres) => String(lengthIn(metres, lengthUnit))}
          field={`${field}/cable/lengthM`}
          value={circuit.cable?.lengthM}
          disabled={!canEdit}
          onTake={(value) =>
            edit('Cable length', (one) => {
              one.cable ??= {};
              put(one.cable, 'lengthM', value);
            })
          }
        />
      </td>
    </tr>
  );
});

/** More rows than this are drawn when somebody asks for them. */
const FIRST = 60;

/** The circuit that a link leads to. */
const circuitIn = (hash: string): string | undefined =>
  /^circuits\/([^/]+)/.exec(decodeURIComponent(hash.replace(/^#field=/, '')))?.[1];

/** Device and cable of each circuit, for the boards chosen on the drawing or for all. */
export function CircuitTable({ partitionIds }: { readonly partitionIds: ReadonlySet<string> }) {
  const { design, canEdit } = useOpenJob();
  const lengthUnit = useLengthUnit();
  const [isAll, setIsAll] = useState(false);
  const wanted = circuitIn(useLocation().hash);
  const types = useMemo(() => deviceTypes(design.types), [design.types]);
  const names = new Map(design.partitions.map(({ id, name }) => [id, name]));
  const some = design.circuits.filter(
    ({ partitionId }) => partitionId !== undefined && partitionIds.has(partitionId),
  );
  const about = some.length > 0 ? some : design.circuits;
  const shown = isAll ? about : about.filter(({ id }, at) => at < FIRST || id === wanted);
  if (design.circuits.length === 0)
    return <p className="text-quiet">No circuits yet: they come from Loads.</p>;
  return (
    <div className="relative overflow-x-auto" tabIndex={0} role="region" aria-label="Circuits">
      <table className="w-full min-w-[640px]">
        <thead>
          <tr className="text-left text-quiet">
            <th className="font-normal">Circuit</th>
            <th className="font-normal">Board</th>
            <th className="font-normal">Device</th>
            <th className="font-normal">A</th>
            <th className="font-normal">Curve</th>
            <th className="font-normal">{sizeUnit(design.site.codeProfile)}</th>
            <th className="font-normal">{lengthUnit}</th>
          </tr>
        </thead>
        <tbody>
          {shown.map((circuit) => (
            <CircuitRow
              profile={design.site.codeProfile}
              key={circuit.id}
              circuit={circuit}
              types={types}
              canEdit={canEdit}
              lengthUnit={lengthUnit}
              board={
                circuit.partitionId === undefined ? 'no place yet' : (names.get(circuit.partitionId) ?? '')
              }
            />
          ))}
        </tbody>
      </table>
      {about.length > shown.length && <ShowAll count={about.length} onShow={() => setIsAll(true)} />}
    </div>
  );
}
