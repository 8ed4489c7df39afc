import { faultId, type FaultKind, FAULT_KINDS, type SiteCommand, type siteWire } from '@bastion/core';
import { useMemo, useState } from 'react';
import { FormChoice } from '../../../ui/FormChoice.tsx';

export interface FaultChoice {
  readonly kind: FaultKind | '';
  readonly at: string;
}
export const NO_CHOICE: FaultChoice = { kind: '', at: '' };

/** A kind of fault, and then where: of what this installation can have. */
export function FaultSelects({
  menu,
  choice,
  disabled,
  onChoose,
}: {
  readonly menu: siteWire.SiteMenu;
  readonly choice: FaultChoice;
  readonly disabled: boolean;
  readonly onChoose: (choice: FaultChoice) => void;
}) {
  const kinds = useMemo(() => [...new Set(menu.faults.map(({ kind }) => kind))], [menu]);
  const places = menu.faults.filter(({ kind }) => kind === choice.kind);
  return (
    <>
      <FormChoice
        label="What is wrong"
        value={choice.kind}
        disabled={disabled}
        emptyLabel="choose"
        options={kinds.map((kind) => ({ value: kind, label: FAULT_KINDS[kind].words }))}
        onChoose={(chosen) => {
          const kind = kinds.find((one) => one === chosen) ?? '';
          const own = menu.faults.filter((one) => one.kind === kind);
          onChoose({ kind, at: own.length === 1 ? (own[0]?.at ?? '') : '' });
        }}
      />
      <FormChoice
        label="Where"
        value={choice.at}
        disabled={disabled || choice.kind === ''}
        emptyLabel="choose"
        options={places.map(({ at, place }) => ({ value: at, label: place }))}
        onChoose={(at) => onChoose({ ...choice, at })}
      />
    </>
  );
}

interface FaultPlanterProps {
  readonly menu: siteWire.SiteMenu;
  readonly faults: siteWire.OpenSite['view']['faults'];
  readonly canAct: boolean;
  readonly onCommand: (command: SiteCommand) => void;
}

/** Plants faults in the site and mends them again. */
export function FaultPlanter({ menu, faults, canAct, onCommand }: FaultPlanterProps) {
  const [choice, setChoice] = useState(NO_CHOICE);
  const { kind, at } = choice;
  const placeOf = (id: string): string => {
    const found = menu.faults.find((one) => faultId(one) === id);
    return found === undefined ? id : `${found.words}: ${found.place}`;
  };
  return (
    <section className="sheet grid content-start gap-2 p-3" aria-label="Faults">
      <h3 className="font-semibold">Faults</h3>
      <FaultSelects menu={menu} choice={choice} disabled={!canAct} onChoose={setChoice} />
      <button
        type="button"
        className="button justify-self-start"
        disabled={!canAct || kind === '' || at === ''}
        onClick={() => {
          if (kind !== '') onCommand({ do: 'plant', fault: { kind, at } });
        }}
      >
        Plant it
      </button>
      {faults.length === 0 ? (
        <p className="text-quiet">
          Nothing is planted. What the design itself has wrong is there all the same.
        </p>
      ) : (
        <ul className="grid gap-1">
          {faults.map((fault) => (
            <li key={faultId(fault)} className="flex items-center gap-3 border-t border-rule pt-1">
              <span className="flex-1">{placeOf(faultId(fault))}</span>
              <button
                type="button"
                className="button"
                disabled={!canAct}
                onClick={() => onCommand({ do: 'mend', fault })}
              >
                Mend
              </button>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
