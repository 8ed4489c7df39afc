import { judgeMeasured, type Measurement } from '@bastion/core';
import { type SyntheticEvent, useId, useState } from 'react';
import { FormChoice } from '../../../ui/FormChoice.tsx';
import { readNumber } from '../../../ui/readNumber.ts';

type OnRead = (measurement: Measurement, isAsExpected: boolean, read: string) => void;

/** A figure as the instrument shows it, held against what is expected there. Nothing where it is not read as a figure. */
export function FigureRead({
  measurement,
  onRead,
}: {
  readonly measurement: Measurement;
  readonly onRead: OnRead;
}) {
  const id = useId();
  const [text, setText] = useState('');
  const [failure, setFailure] = useState('');
  const { band } = measurement;
  if (band === undefined) return null;
  const take = (event: SyntheticEvent): void => {
    event.preventDefault();
    const value = readNumber(text);
    const isAsExpected = value === undefined ? undefined : judgeMeasured(measurement, value);
    if (value === undefined || isAsExpected === undefined) setFailure(`"${text}" is not a number.`);
    else onRead(measurement, isAsExpected, `${value} ${band.unit}`);
  };
  return (
    <form className="flex flex-wrap items-end gap-2" onSubmit={take}>
      <label htmlFor={id}>
        <span className="block text-[13px] text-quiet">What the instrument shows, {band.unit}</span>
        <input
          id={id}
          className="input w-32! text-right"
          inputMode="decimal"
          value={text}
          onChange={({ target }) => setText(target.value)}
        />
      </label>
      <button type="submit" className="button" disabled={text.trim() === ''}>
        Judge it
      </button>
      <p role="alert" className="w-full font-semibold text-over empty:hidden">
        {failure}
      </p>
    </form>
  );
}

/** A figure that somebody has already, from another place than the one that is asked for next. */
export function MeasuredElsewhere({
  others,
  onRead,
}: {
  readonly others: readonly Measurement[];
  readonly onRead: OnRead;
}) {
  const figures = others.filter(({ band }) => band !== undefined);
  const [chosenId, setChosenId] = useState('');
  const chosen = figures.find((one) => one.id === chosenId);
  return (
    <details className="sheet p-3">
      <summary className="font-semibold">A figure from another place</summary>
      <FormChoice
        label="Where it was read"
        value={chosenId}
        emptyLabel="choose"
        options={figures.map((one) => ({ value: one.id, label: `${one.what} ${one.place}` }))}
        onChoose={setChosenId}
      />
      {chosen !== undefined && <FigureRead key={chosen.id} measurement={chosen} onRead={onRead} />}
    </details>
  );
}
