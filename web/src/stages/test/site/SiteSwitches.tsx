import { formatQuantity, type SiteCommand, type siteWire } from '@bastion/core';
import { useId, useState } from 'react';
import { readNumber } from '../../../ui/readNumber.ts';
import { Switch } from './Switch.tsx';

interface PartProps {
  readonly view: siteWire.OpenSite['view'];
  readonly canAct: boolean;
  readonly onCommand: (command: SiteCommand) => void;
}

const POSITIONS = [
  ['grid', 'Grid'],
  ['generator', 'Generator'],
  ['bypass', 'Maintenance bypass'],
] as const;

function TestLoad({
  line,
  watts,
  disabled,
  onTake,
}: {
  readonly line: string;
  readonly watts: number;
  readonly disabled: boolean;
  readonly onTake: (watts: number) => void;
}) {
  const id = useId();
  const [text, setText] = useState<string>();
  const [isWrong, setWrong] = useState(false);
  const take = (): void => {
    if (text === undefined) return;
    const value = readNumber(text);
    setWrong(value === undefined || value < 0);
    if (value === undefined || value < 0) return;
    setText(undefined);
    onTake(value);
  };
  return (
    <form
      className="flex items-center gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        take();
      }}
    >
      <label htmlFor={id} className="flex-1">
        Load bank on {line}
      </label>
      <input
        id={id}
        className="input w-28 text-right"
        inputMode="decimal"
        autoComplete="off"
        disabled={disabled}
        aria-invalid={isWrong}
        value={text ?? String(Math.round(watts))}
        onChange={({ target }) => setText(target.value)}
        onBlur={take}
      />
      <span className="w-5 text-quiet">W</span>
    </form>
  );
}

/** What a hand can turn that is not inside a set: grid, isolator, transfer, sun, load bank, generators. */
export function SourceSwitches({ view, canAct, onCommand }: PartProps) {
  const disabled = !canAct;
  const hasTransfer = view.generators.some(({ connection }) => connection !== 'generator-port');
  const positions = POSITIONS.filter(([to]) => to !== 'generator' || hasTransfer);
  return (
    <section className="sheet grid content-start gap-2 p-3" aria-label="Sources and switches">
      <h3 className="font-semibold">Sources and switches</h3>
      {view.hasGrid && (
        <Switch
          label="Grid"
          words={['there', 'gone']}
          isOn={view.isGridPresent}
          disabled={disabled}
          onTurn={(present) => onCommand({ do: 'grid', present })}
        />
      )}
      <Switch
        label="Isolator of the sets"
        words={['closed', 'open']}
        isOn={view.isGridClosed}
        disabled={disabled}
        onTurn={(closed) => onCommand({ do: 'isolator', closed })}
      />
      {positions.length > 1 && (
        <label className="flex items-center gap-2">
          <span className="flex-1">Transfer stands at</span>
          <select
            className="input w-48"
            disabled={disabled}
            value={view.position}
            onChange={({ target }) => {
              const found = POSITIONS.find(([to]) => to === target.value);
              if (found !== undefined) onCommand({ do: 'position', to: found[0] });
            }}
          >
            {positions.map(([to, words]) => (
              <option key={to} value={to}>
                {words}
              </option>
            ))}
          </select>
        </label>
      )}
      {view.generators.map(({ generatorId, name, phase, isCalled, watts }) => (
        <Switch
          key={generatorId}
          label={`${name}${watts > 0 ? `, ${formatQuantity(watts, 'W')}` : ''}`}
          words={[phase, phase]}
          isOn={isCalled}
          disabled={disabled}
          onTurn={(run) => onCommand({ do: 'generator', generatorId, run })}
        />
      ))}
      <label className="flex items-center gap-2">
        <span className="flex-1">Sun, {Math.round(view.sun * 100)} % of a clear noon</span>
        <input
          type="range"
          className="site-range w-36"
          min={0}
          max={100}
          step={5}
          disabled={disabled}
          value={Math.round(view.sun * 100)}
          onChange={({ target }) => onCommand({ do: 'sun', share: Number(target.value) / 100 })}
        />
      </label>
      {view.lines.map(({ line, testLoadW }, index) => (
        <TestLoad
          key={line}
          line={line}
          watts={testLoadW}
          disabled={disabled}
          onTake={(watts) => onCommand({ do: 'test-load', line: index, watts })}
        />
      ))}
    </section>
  );
}

/** The circuits of the building, each with what it draws. */
export function CircuitSwitches({ view, canAct, onCommand }: PartProps) {
  const [search, setSearch] = useState('');
  const shown = view.circuits.filter(({ name }) => name.toLowerCase().includes(search.toLowerCase()));
  return (
    <section className="sheet grid content-start gap-2 p-3" aria-label="Circuits">
      <div className="flex flex-wrap items-center gap-2">
        <h3 className="flex-1 font-semibold">Circuits</h3>
        <button
          type="button"
          className="button"
          disabled={!canAct}
          onClick={() => onCommand({ do: 'circuits', on: true })}
        >
          All on
        </button>
        <button
          type="button"
          className="button"
          disabled={!canAct}
          onClick={() => onCommand({ do: 'circuits', on: false })}
        >
          All off
        </button>
      </div>
      {view.circuits.length > 12 && (
        <input
          className="input"
          type="search"
          aria-label="Find a circuit"
          placeholder="Find a circuit"
          value={search}
          onChange={({ target }) => setSearch(target.value)}
        />
      )}
      <ul className="grid max-h-96 gap-1 overflow-y-auto" tabIndex={0} aria-label="List of circuits">
        {shown.map(({ circuitId, name, isOn, watts }) => (
          <li key={circuitId}>
            <Switch
              label={`${name}${watts > 0 ? `, ${formatQuantity(watts, 'W')}` : ''}`}
              isOn={isOn}
              disabled={!canAct}
              onTurn={(on) => onCommand({ do: 'circuit', circuitId, on })}
            />
          </li>
        ))}
      </ul>
    </section>
  );
}
