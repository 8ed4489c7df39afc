import { type BankApart, type OutageRun, runApart } from '@bastion/core';
import { useMemo } from 'react';

interface BankChoiceProps {
  readonly apart: readonly BankApart[];
  readonly run: OutageRun | undefined;
  readonly bank: string;
  readonly onBank: (label: string) => void;
}

const hours = (minutes: number): string => `${Math.round((minutes / 60) * 100) / 100} h`;

/** What the banks have in common: the set, and its engine. */
function commonWords(apart: readonly BankApart[]): string {
  const stops = apart.some(({ plant }) => plant.lostUnit === 'set-stops');
  const hasEngine = apart.some(({ plant }) => plant.generator !== undefined);
  return [
    stops
      ? 'This set stops as a whole with the first of them.'
      : 'A line goes dark with its own banks; the others go on.',
    hasEngine
      ? 'The first bank that needs it calls the generator for all, and it runs until the last has enough. Sun and generator are shared out evenly.'
      : 'Sun is shared out evenly.',
  ].join(' ');
}

/** Banks that are spent by themselves, each with how far it carries its line; the one that is picked is shown. */
export function BankChoice({ apart, run, bank, onBank }: BankChoiceProps) {
  const played = useMemo(() => (run === undefined ? [] : runApart(apart, run)), [apart, run]);
  if (apart.length === 0 || played.length === 0) return null;
  return (
    <fieldset className="text-[13px]">
      <legend className="font-semibold">Each unit has a bank of its own</legend>
      <label className="flex items-center gap-1.5">
        <input type="radio" name="bank" checked={bank === ''} onChange={() => onBank('')} />
        the hardest-working unit by itself, as the limits look at it
      </label>
      {played.map(({ lastedMinutes, lowestSoc }, at) => {
        const label = apart[at]?.label ?? '';
        return (
          <label key={label} className="flex items-center gap-1.5">
            <input type="radio" name="bank" checked={bank === label} onChange={() => onBank(label)} />
            {label}: carried for {hours(lastedMinutes)}, {Math.round(lowestSoc * 100)} % at its lowest
          </label>
        );
      })}
      <p className="text-quiet">
        {commonWords(apart)}
        {run?.lose?.what === 'module' ? ' A module that fails is lost to each of these banks here.' : ''}
      </p>
    </fieldset>
  );
}
