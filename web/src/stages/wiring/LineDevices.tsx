import { type Design, lengthIn, metresIn, type Network, type Part } from '@bastion/core';
import { catalogueNow } from '../../state/catalogue.ts';
import { useJob, useOpenJob } from '../../state/job.ts';
import { useLengthUnit } from '../../state/lengthUnit.ts';
import { useLight } from '../../state/light.ts';
import { put } from '../../state/put.ts';
import { deviceIn, deviceOf } from './deviceEdits.ts';
import { FigureCell } from './FigureCell.tsx';
import { type DeviceType, TypeOptions } from './TypeOptions.tsx';

export function deviceTypes(own: Design['types']): DeviceType[] {
  const byId = new Map([...catalogueNow(), ...own].map((type) => [type.id, type]));
  return [...byId.values()].filter((type): type is DeviceType => type.kind === 'protective-device');
}

const isOfBattery = ({ role }: Part): boolean => role?.startsWith('battery-') === true;

function DeviceRow({
  part,
  types,
  isChosen,
  onPick,
}: {
  readonly part: Part;
  readonly types: readonly DeviceType[];
  readonly isChosen: boolean;
  readonly onPick: (partId: string) => void;
}) {
  const { design, canEdit } = useOpenJob();
  const lengthUnit = useLengthUnit();
  const change = useJob((store) => store.change);
  const { litPart, lightPart } = useLight();
  const device = deviceOf(design, part);
  const isMain = part.role === 'service-main';
  const edit = (label: string, recipe: (one: Design['devices'][number]) => void) =>
    change(label, (draft) => {
      const target = deviceIn(draft, part);
      if (target !== undefined) recipe(target);
    });
  const field = device === undefined ? 'devices' : `devices/${device.id}`;
  return (
    <tr
      className={`border-t border-rule ${isChosen || litPart === part.id ? 'bg-chosen' : ''}`}
      onPointerEnter={() => lightPart(part.id)}
      onPointerLeave={() => lightPart(undefined)}
    >
      <th scope="row" className="py-0.5 pr-3 text-left font-normal">
        <button
          type="button"
          className="text-left underline-offset-2 hover:underline"
          onClick={() => onPick(part.id)}
        >
          {part.label}
        </button>
      </th>
      <td className="pr-2">
        <select
          className="input"
          aria-label={`Fitted: ${part.label}`}
          data-field={`${field}/fitted`}
          disabled={!canEdit}
          value={part.fitted?.known === true ? part.fitted.value : ''}
          onChange={({ target }) =>
            edit(`Fitted: ${part.label}`, (one) =>
              put(one, 'fitted', target.value === '' ? undefined : target.value === 'yes' ? 'yes' : 'none'),
            )
          }
        >
          <option value="">not known</option>
          <option value="yes">fitted</option>
          <option value="none">none</option>
        </select>
      </td>
      <td className="pr-2">
        <select
          className="input"
          aria-label={`Type: ${part.label}`}
          data-field={`${field}/typeId`}
          disabled={!canEdit}
          value={device?.typeId ?? ''}
          onChange={({ target }) =>
            edit(`Type: ${part.label}`, (one) =>
              put(one, 'typeId', target.value === '' ? undefined : target.value),
            )
          }
        >
          <TypeOptions types={types} isDc={isOfBattery(part) || part.role === 'dc-switch'} />
        </select>
      </td>
      <td>
        <FigureCell
          label={`Rating in A: ${part.label}`}
          field={`${field}/ratedA`}
          value={part.ratedA?.known === true ? part.ratedA.value : undefined}
          disabled={!canEdit || isMain || device?.typeId !== undefined}
          onTake={(value) => edit(`Rating: ${part.label}`, (one) => put(one, 'ratedA', value))}
        />
      </td>
      <td>
        {isOfBattery(part) && (
          <FigureCell
            label={`From the battery in ${lengthUnit}: ${part.label}`}
            read={(text) => metresIn(text, lengthUnit)}
            show={(metres) => String(lengthIn(metres, lengthUnit))}
            field={`${field}/fromBatteryM`}
            value={part.fromBatteryM}
            disabled={!canEdit}
            onTake={(value) => edit(`Place: ${part.label}`, (one) => put(one, 'fromBatteryM', value))}
          />
        )}
      </td>
    </tr>
  );
}

/** Every switch, breaker and isolator in its line: what nobody has stated stands there as not known. */
export function LineDevices({
  network,
  chosen,
  onPick,
}: {
  readonly network: Network;
  readonly chosen: ReadonlySet<string>;
  readonly onPick: (partId: string) => void;
}) {
  const { design } = useOpenJob();
  const lengthUnit = useLengthUnit();
  const types = deviceTypes(design.types);
  const parts = network.parts.filter(({ kind, role }) => kind === 'device' && role !== 'circuit');
  // Choosing a part on the drawing filters the rows to it; nothing chosen shows all.
  const some = parts.filter(({ id }) => chosen.has(id));
  const shown = some.length > 0 ? some : parts;
  return (
    <div className="relative overflow-x-auto" tabIndex={0} role="region" aria-label="Devices in the lines">
      <table className="w-full min-w-[560px]">
        <thead>
          <tr className="text-left text-quiet">
            <th className="font-normal">Device</th>
            <th className="font-normal">Fitted</th>
            <th className="font-normal">Type</th>
            <th className="font-normal">A</th>
            <th className="font-normal">From battery, {lengthUnit}</th>
          </tr>
        </thead>
        <tbody>
          {shown.map((part) => (
            <DeviceRow
              key={part.id}
              part={part}
              types={types}
              isChosen={chosen.has(part.id)}
              onPick={onPick}
            />
          ))}
        </tbody>
      </table>
    </div>
  );
}
