import { Plus, Trash2 } from 'lucide-react';

export interface Cable {
  readonly id: string;
  readonly from: string;
  readonly fromPort: string;
  readonly to: string;
  readonly toPort: string;
}

interface Choice {
  readonly value: string;
  readonly label: string;
}

interface CableTableProps {
  readonly title: string;
  readonly path: readonly string[];
  readonly cables: readonly Cable[];
  readonly from: readonly Choice[];
  readonly to: readonly Choice[];
  /** Sockets to choose from, and any other name that is there already. */
  readonly ports: readonly string[];
  readonly canEdit: boolean;
  readonly onChange: (id: string, part: keyof Omit<Cable, 'id'>, value: string) => void;
  readonly onAdd: () => void;
  readonly onRemove: (id: string) => void;
}

function Pick({
  label,
  path,
  value,
  choices,
  canEdit,
  onTake,
}: {
  readonly label: string;
  readonly path: string;
  readonly value: string;
  readonly choices: readonly Choice[];
  readonly canEdit: boolean;
  readonly onTake: (value: string) => void;
}) {
  const known = choices.some((choice) => choice.value === value);
  return (
    <select
      className="input"
      aria-label={label}
      data-field={path}
      disabled={!canEdit}
      value={value}
      onChange={(event) => onTake(event.target.value)}
    >
      {!known && <option value={value}>{value}</option>}
      {choices.map((choice) => (
        <option key={choice.value} value={choice.value}>
          {choice.label}
        </option>
      ))}
    </select>
  );
}

/** Cables of a bus as they are plugged, one a row: from which socket of which device to which. */
export function CableTable({
  title,
  path,
  cables,
  from,
  to,
  ports,
  canEdit,
  onChange,
  onAdd,
  onRemove,
}: CableTableProps) {
  const sockets = [...new Set(ports)].map((port) => ({ value: port, label: port }));
  return (
    <div data-field={path.join('/')} tabIndex={-1} className="mt-2 relative overflow-x-auto">
      <table className="condensed w-full max-w-2xl">
        <caption className="sr-only">{title}</caption>
        <thead>
          <tr className="text-left text-quiet">
            <th className="font-medium">Cable</th>
            <th className="font-medium">from</th>
            <th className="font-medium">socket</th>
            <th className="font-medium">to</th>
            <th className="font-medium">socket</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {cables.map((cable, index) => {
            const pick = (part: keyof Omit<Cable, 'id'>, label: string, choices: readonly Choice[]) => (
              <Pick
                label={`Cable ${index + 1}, ${label}`}
                path={[...path, cable.id, part].join('/')}
                value={cable[part]}
                choices={choices}
                canEdit={canEdit}
                onTake={(value) => onChange(cable.id, part, value)}
              />
            );
            return (
              <tr key={cable.id}>
                <td>{index + 1}</td>
                <td>{pick('from', 'from', from)}</td>
                <td>{pick('fromPort', 'socket it leaves by', sockets)}</td>
                <td>{pick('to', 'to', to)}</td>
                <td>{pick('toPort', 'socket it enters by', sockets)}</td>
                <td>
                  {canEdit && (
                    <button
                      type="button"
                      className="button button-quiet"
                      aria-label={`Take out cable ${index + 1}`}
                      onClick={() => onRemove(cable.id)}
                    >
                      <Trash2 size={14} aria-hidden="true" />
                    </button>
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      {canEdit && (
        <button type="button" className="button mt-1" onClick={onAdd}>
          <Plus size={14} aria-hidden="true" /> Add a cable
        </button>
      )}
    </div>
  );
}
