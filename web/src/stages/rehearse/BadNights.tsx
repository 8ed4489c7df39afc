import { clockWords, formatNumber, formatQuantity, type NightGlance, seasonWords } from '@bastion/core';
import { useState } from 'react';
import { readNumber } from '../../ui/readNumber.ts';

const hours = (minutes: number): string => `${formatNumber(Math.round(minutes / 6) / 10)} h`;

/** The nights that were dark for longest, and any other by its number: each opens hour by hour. */
export function BadNights({
  worst,
  nights,
  onOpen,
}: {
  readonly worst: readonly NightGlance[];
  readonly nights: number;
  readonly onOpen: (night: number) => void;
}) {
  const [text, setText] = useState('');
  const number = readNumber(text);
  const isThere = number !== undefined && Number.isInteger(number) && number >= 1 && number <= nights;
  return (
    <section>
      <h4 className="font-semibold">The worst of them</h4>
      {worst.length === 0 ? (
        <p className="text-[13px] text-quiet">None of them went dark.</p>
      ) : (
        <div className="relative overflow-x-auto" tabIndex={0} role="region" aria-label="The worst nights">
          <table className="schedule text-[13px]">
            <thead>
              <tr className="text-left text-quiet">
                {['Number', 'Grid goes', 'Lasts', 'Dark after', 'Not served'].map((title) => (
                  <th key={title} scope="col" className="font-normal">
                    {title}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {worst.map(({ night, season, startMinute, minutes, lastedMinutes, unservedWh }) => (
                <tr key={night} className="border-t border-rule tabular-nums">
                  <th scope="row" className="text-left font-normal">
                    <button
                      type="button"
                      className="text-touch underline-offset-2 hover:underline"
                      aria-label={`Open night ${night + 1}, hour by hour`}
                      onClick={() => onOpen(night)}
                    >
                      {night + 1}
                    </button>
                  </th>
                  <td>
                    {seasonWords(season)}, {clockWords(startMinute / 60)}
                  </td>
                  <td>{hours(minutes)}</td>
                  <td>{hours(lastedMinutes)}</td>
                  <td>{formatQuantity(unservedWh, 'Wh')}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      <form
        className="no-print mt-2 flex items-end gap-1.5"
        onSubmit={(event) => {
          event.preventDefault();
          if (isThere) onOpen(number - 1);
        }}
      >
        <label>
          <span className="block text-[13px] text-quiet">Any of them, by its number</span>
          <input
            className="input w-28! text-right"
            inputMode="numeric"
            value={text}
            onChange={({ target }) => setText(target.value)}
          />
        </label>
        <button type="submit" className="button" disabled={!isThere}>
          Open it hour by hour
        </button>
        {text.trim() !== '' && !isThere && (
          <span className="text-over">From 1 to {nights.toLocaleString('en')}.</span>
        )}
      </form>
    </section>
  );
}
