import { formatQuantity, type SiteCommand, type siteWire } from '@bastion/core';
import { Switch } from './Switch.tsx';

type SetView = siteWire.OpenSite['view']['sets'][number];

interface SetPanelProps {
  readonly set: SetView;
  readonly canAct: boolean;
  readonly isBlind: boolean;
  readonly onCommand: (command: SiteCommand) => void;
}

const CHARGES = [1, 0.8, 0.5, 0.2, 0.12] as const;

/** One set: what it does and reports, its units, its bank and its settings. An apprentice reads figures with instruments, not here. */
export function SetPanel({ set, canAct, isBlind, onCommand }: SetPanelProps) {
  const { stackId } = set;
  return (
    <section className="sheet grid content-start gap-2 p-3" aria-label={set.name}>
      <h3 className="font-semibold">{set.name}</h3>
      {set.hasBattery && (
        <>
          <Switch
            label="Devices of the battery"
            words={['closed', 'open']}
            isOn={set.isBatteryClosed}
            disabled={!canAct}
            onTurn={(closed) => onCommand({ do: 'battery', stackId, closed })}
          />
          {!isBlind && <BankLine set={set} canAct={canAct} onCommand={onCommand} />}
        </>
      )}
      <ul className="grid gap-1">
        {set.units.map(({ unitId, label, lines, isOn, watts, currentA }) => (
          <li key={unitId}>
            <Switch
              label={`${label}, ${lines.join(' and ')}${isBlind || watts === 0 ? '' : `: ${formatQuantity(watts, 'W')}, ${currentA.toFixed(1)} A`}`}
              isOn={isOn}
              disabled={!canAct}
              onTurn={(on) => onCommand({ do: 'unit', stackId, unitId, on })}
            />
          </li>
        ))}
      </ul>
      {!isBlind && <Modules set={set} />}
      {!isBlind && <Settings set={set} canAct={canAct} onCommand={onCommand} />}
    </section>
  );
}

function BankLine({ set, canAct, onCommand }: Omit<SetPanelProps, 'isBlind'>) {
  return (
    <p className="flex flex-wrap items-center gap-x-4 gap-y-1 tabular-nums">
      <span>{Math.round(set.soc * 100)} %</span>
      <span>{set.batteryV.toFixed(2)} V</span>
      <span>
        {Math.abs(set.batteryA).toFixed(1)} A {set.batteryA < 0 ? 'in' : 'out'}
      </span>
      {set.chargeW > 0 && <span>charging with {formatQuantity(set.chargeW, 'W')}</span>}
      {set.sunW > 0 && <span>sun {formatQuantity(set.sunW, 'W')}</span>}
      <label className="ml-auto flex items-center gap-2">
        <span className="text-quiet">Charge it to</span>
        <select
          className="input w-24"
          disabled={!canAct}
          value=""
          onChange={({ target }) =>
            onCommand({ do: 'charge', stackId: set.stackId, soc: Number(target.value) })
          }
        >
          <option value="" disabled>
            …
          </option>
          {CHARGES.map((soc) => (
            <option key={soc} value={soc}>
              {Math.round(soc * 100)} %
            </option>
          ))}
        </select>
      </label>
    </p>
  );
}

function Modules({ set: { modules } }: { readonly set: SetView }) {
  if (modules.length === 0) return null;
  const most = Math.max(1e-9, ...modules.map(({ currentA }) => Math.abs(currentA)));
  return (
    <div className="overflow-x-auto" tabIndex={0} role="group" aria-label="Modules">
      <table className="w-full text-right tabular-nums">
        <thead className="text-[13px] text-quiet">
          <tr>
            <th className="text-left font-normal">Module</th>
            <th className="font-normal">V</th>
            <th className="font-normal">A</th>
            <th className="font-normal">%</th>
            <th className="w-28 font-normal">
              <span className="sr-only">Share of the largest current</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {modules.map(({ moduleId, label, voltageV, currentA, soc, isJoined }) => (
            <tr key={moduleId} className="border-t border-rule">
              <th className="text-left font-normal">
                {label}
                {!isJoined && <strong className="text-over"> off the bank</strong>}
              </th>
              <td>{voltageV.toFixed(2)}</td>
              <td>{(Math.abs(currentA) < 0.005 ? 0 : currentA).toFixed(2)}</td>
              <td>{(soc * 100).toFixed(1)}</td>
              <td className="pl-3">
                <span
                  aria-hidden="true"
                  className="site-share"
                  style={{ width: `${(100 * Math.abs(currentA)) / most}%` }}
                />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

type SettingsOfSet = SetPanelProps['set']['settings'];

/** Figures from the sheet of a set. */
const FIGURES = [
  {
    setting: 'grid-charge',
    label: 'Charging of each unit from the grid',
    unit: 'W',
    value: ({ gridChargeW }: SettingsOfSet) => gridChargeW,
    scale: 1,
  },
  {
    setting: 'generator-charge',
    label: 'Charging of each unit at its generator port',
    unit: 'W',
    value: ({ generatorChargeW }: SettingsOfSet) => generatorChargeW,
    scale: 1,
  },
  {
    setting: 'cutoff',
    label: 'Stops at a charge of',
    unit: '%',
    value: ({ floorSoc }: SettingsOfSet) => floorSoc,
    scale: 100,
  },
] as const;

/** Settings as they are in the units: forgotten ones are set here, as on a display. */
function Settings({ set, canAct, onCommand }: Omit<SetPanelProps, 'isBlind'>) {
  const { stackId, settings, units } = set;
  const turn = (setting: 'backup' | 'clock', isOn: boolean): void =>
    onCommand({ do: 'setting', stackId, setting, value: isOn ? 1 : 0 });
  return (
    <details>
      <summary className="cursor-pointer py-1">Settings and firmware, as on the displays</summary>
      <div className="grid gap-1 pt-1">
        <Switch
          label="Backup output"
          isOn={settings.backup}
          disabled={!canAct}
          onTurn={(on) => turn('backup', on)}
        />
        <Switch
          label="Date and time"
          words={['set', 'not set']}
          isOn={settings.isClockSet}
          disabled={!canAct}
          onTurn={(on) => turn('clock', on)}
        />
        <Figure
          label="Charge current of each unit"
          unit="A"
          value={settings.chargeA}
          disabled={!canAct}
          onTake={(value) => onCommand({ do: 'setting', stackId, setting: 'charge', value })}
        />
        {FIGURES.map(({ setting, label, unit, value, scale }) => (
          <Figure
            key={setting}
            label={label}
            unit={unit}
            value={Number((value(settings) * scale).toFixed(2))}
            disabled={!canAct}
            onTake={(typed) => onCommand({ do: 'setting', stackId, setting, value: typed / scale })}
          />
        ))}
        {units.length > 1 && (
          <Figure
            label="Units in the set"
            unit=""
            value={settings.count}
            disabled={!canAct}
            onTake={(value) => onCommand({ do: 'setting', stackId, setting: 'count', value })}
          />
        )}
        {units.map(({ unitId, label, firmware, address }) => (
          <p key={unitId} className="flex flex-wrap items-center gap-3">
            <span className="flex-1">
              {label}: address {address}, firmware {firmware}
            </span>
            <button
              type="button"
              className="button"
              disabled={!canAct}
              onClick={() => onCommand({ do: 'firmware', stackId, unitId })}
            >
              Load the newest
            </button>
          </p>
        ))}
      </div>
    </details>
  );
}

function Figure({
  label,
  unit,
  value,
  disabled,
  onTake,
}: {
  readonly label: string;
  readonly unit: string;
  readonly value: number;
  readonly disabled: boolean;
  readonly onTake: (value: number) => void;
}) {
  return (
    <label className="flex items-center gap-2">
      <span className="flex-1">{label}</span>
      <input
        key={value}
        type="number"
        min={0}
        className="input w-28 text-right"
        disabled={disabled}
        defaultValue={Math.round(value * 10) / 10}
        onBlur={({ target }) => {
          const typed = target.valueAsNumber;
          if (Number.isFinite(typed) && typed >= 0 && Math.abs(typed - value) > 0.05) onTake(typed);
        }}
        onKeyDown={(event) => {
          if (event.key === 'Enter') event.currentTarget.blur();
        }}
      />
      <span className="w-5 text-quiet">{unit}</span>
    </label>
  );
}
