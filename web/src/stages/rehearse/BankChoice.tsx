import { type BankApart, type OutageRun, runOutage } from '@bastion/core';
import { useMemo } from 'react';

interface BankChoiceProps {
  readonly apart: readonly BankApart[];
  readonly run: OutageRun | undefined;
  readonly bank: string;
  readonly onBank: (label: string) => void;
}

const hours = (minutes: number): string => `${Math.round((minutes / 60) * 100) / 100} h`;

/** Banks that are spent by themselves, each with how far it carries its line; the one that is picked is played. */
export function BankChoice({ apart, run, bank, onBank }: BankChoiceProps) {
  const played = useMemo(
    () =>
      run === undefined
        ? []
        : apart.map(({ label, plant }) => ({
            label,
            ...runOutage(plant, run),
            stops: plant.lostUnit === 'set-stops',
          })),
    [apart, run],
  );
  if (played.length === 0) return null;
  return (
    <fieldset className="text-[13px]">
      <legend className="font-semibold">Each unit has a bank of its own</legend>
      <label className="flex items-center gap-1.5">
        <input type="radio" name="bank" checked={bank === ''} onChange={() => onBank('')} />
        the hardest-working unit, as the limits look at it
      </label>
      {played.map(({ label, lastedMinutes, lowestSoc }) => (
        <label key={label} className="flex items-center gap-1.5">
          <input type="radio" name="bank" checked={bank === label} onChange={() => onBank(label)} />
          {label}: carried for {hours(lastedMinutes)}, {Math.round(lowestSoc * 100)} % at its lowest
        </label>
      ))}
      <p className="text-quiet">
        {played.some(({ stops }) => stops)
          ? 'This set stops as a whole with the first of them.'
          : 'A line goes dark with its own banks; the others go on.'}{' '}
        Sun and generator are shared out evenly, and each bank calls the generator by itself here.
      </p>
    </fieldset>
  );
}
