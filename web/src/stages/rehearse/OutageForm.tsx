import { type KeptRehearsal, MONTH_NAMES, type Plant, type RehearsalAsk } from '@bastion/core';
import type { ReactNode } from 'react';
import { readNumber } from '../../ui/readNumber.ts';

/** The outage as it stands in the form: figures as they are typed. */
export interface Asked {
  readonly startH: string;
  readonly hours: string;
  readonly month: number;
  readonly sky: number;
  readonly fromFull: boolean;
  readonly withChance: boolean;
  /** Nothing, a module, or the unit with an id. */
  readonly lose: '' | 'module' | `unit:${string}`;
  readonly loseAtH: string;
}

const failing = (lose: Exclude<Asked['lose'], ''>) =>
  lose === 'module'
    ? { what: 'module' as const }
    : { what: 'unit' as const, unitId: lose.slice('unit:'.length) };

/** What is asked for, or what is wrong with it in a sentence. */
export function askOf(asked: Asked): RehearsalAsk | string {
  const startH = readNumber(asked.startH);
  const hours = readNumber(asked.hours);
  const atH = readNumber(asked.loseAtH);
  if (startH === undefined || startH < 0 || startH >= 24) return 'The outage begins between 0 and 24 h.';
  if (hours === undefined || hours < 1 / 60 || hours > 336)
    return 'An outage lasts between a minute and 336 h here.';
  if (asked.lose !== '' && (atH === undefined || atH < 0 || atH >= hours))
    return 'What fails, fails during the outage.';
  return {
    startH,
    hours,
    month: asked.month,
    clearness: asked.sky,
    fromFull: asked.fromFull,
    ...(asked.withChance ? { seed: 1 } : {}),
    ...(asked.lose === '' || atH === undefined ? {} : { lose: { ...failing(asked.lose), atH } }),
  };
}

/** The form as a kept rehearsal was asked for. */
export function askedAgain(asked: Asked, kept: KeptRehearsal): Asked {
  if (kept.played === 'nights') return { ...asked, fromFull: kept.fromFull };
  return {
    startH: String(kept.startH),
    hours: String(kept.hours),
    month: kept.month,
    sky: kept.clearness,
    fromFull: kept.fromFull,
    withChance: kept.seed !== undefined,
    lose:
      kept.lose === undefined
        ? ''
        : kept.lose.what === 'module'
          ? 'module'
          : `unit:${kept.lose.unitId ?? ''}`,
    loseAtH: String(kept.lose?.atH ?? 1),
  };
}

function Labelled({ label, children }: { readonly label: string; readonly children: ReactNode }) {
  return (
    <label>
      <span className="block text-[13px] text-quiet">{label}</span>
      {children}
    </label>
  );
}

/** When the grid goes, for how long, under which sky, and what fails. */
export function OutageForm({
  asked,
  plant,
  onAsk,
}: {
  readonly asked: Asked;
  readonly plant: Plant;
  readonly onAsk: (asked: Asked) => void;
}) {
  return (
    <fieldset className="no-print flex flex-wrap items-end gap-3">
      <legend className="sr-only">The outage</legend>
      <Labelled label="Grid goes at, h">
        <input
          className="input w-20! text-right"
          inputMode="decimal"
          value={asked.startH}
          onChange={({ target }) => onAsk({ ...asked, startH: target.value })}
        />
      </Labelled>
      <Labelled label="Lasts, h">
        <input
          className="input w-20! text-right"
          inputMode="decimal"
          value={asked.hours}
          onChange={({ target }) => onAsk({ ...asked, hours: target.value })}
        />
      </Labelled>
      <Labelled label="Month">
        <select
          className="input"
          value={asked.month}
          onChange={({ target }) => onAsk({ ...asked, month: Number(target.value) })}
        >
          {MONTH_NAMES.map((name, at) => (
            <option key={name} value={at + 1}>
              {name}
            </option>
          ))}
        </select>
      </Labelled>
      <Labelled label="Sky">
        <select
          className="input"
          value={asked.sky}
          onChange={({ target }) => onAsk({ ...asked, sky: Number(target.value) })}
        >
          <option value={1}>clear</option>
          <option value={0.5}>broken</option>
          <option value={0.15}>overcast</option>
        </select>
      </Labelled>
      <Labelled label="Bank begins">
        <select
          className="input"
          value={asked.fromFull ? 'full' : 'reserve'}
          onChange={({ target }) => onAsk({ ...asked, fromFull: target.value === 'full' })}
        >
          <option value="reserve">at the reserve, {Math.round(plant.reserveSoc * 100)} %</option>
          <option value="full">full</option>
        </select>
      </Labelled>
      <Labelled label="Load">
        <select
          className="input"
          value={asked.withChance ? 'chance' : 'average'}
          onChange={({ target }) => onAsk({ ...asked, withChance: target.value === 'chance' })}
        >
          <option value="average">as planned</option>
          <option value="chance">with chance</option>
        </select>
      </Labelled>
      <Labelled label="Fails">
        <select
          className="input"
          value={asked.lose.replace(/^unit:/, '')}
          onChange={({ target }) =>
            onAsk({
              ...asked,
              lose: target.value === 'module' ? 'module' : target.value === '' ? '' : `unit:${target.value}`,
            })
          }
        >
          <option value="">nothing</option>
          {(plant.limits?.without ?? []).map(({ unitId }, at) => (
            <option key={unitId} value={unitId}>
              unit {at + 1}
            </option>
          ))}
          <option value="module">a module</option>
        </select>
      </Labelled>
      {asked.lose !== '' && (
        <Labelled label="After, h">
          <input
            className="input w-20! text-right"
            inputMode="decimal"
            value={asked.loseAtH}
            onChange={({ target }) => onAsk({ ...asked, loseAtH: target.value })}
          />
        </Labelled>
      )}
    </fieldset>
  );
}
