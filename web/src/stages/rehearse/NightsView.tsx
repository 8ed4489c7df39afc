import {
  DEFAULT_NIGHTS,
  formatNumber,
  keptBands,
  type KeptRehearsal,
  nightsRun,
  type NightsSummary,
  PATTERNS,
  type Plant,
  plantKey,
  RURAL,
  typedPattern,
} from '@bastion/core';
import { Archive } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useOpenJob } from '../../state/job.ts';
import { readNumber } from '../../ui/readNumber.ts';
import { CalledOff } from '../../workers/advice.ts';
import { awaitNights, runNights } from '../../workers/nights.ts';
import type { PlayedNights } from '../../workers/nights.worker.ts';
import { BadNights } from './BadNights.tsx';
import { type KeptNights, useKeptNights } from './keptNights.ts';
import { NightBands } from './NightBands.tsx';
import { useKeep } from './useKeep.ts';

const percent = (share: number): string => `${formatNumber(Math.round(share * 1000) / 10)} %`;

/** A share as a bar with its figure beside it. */
const RANKS = ['worst1', 'worst5', 'middle'] as const;

/** The hours that the outage at a rank was served, as ": 2.1 of 9 h". */
function hoursWords(hours: NightsSummary['boardHours'][number] | undefined, at: number): string {
  const found = hours?.[RANKS[at] ?? 'middle'];
  return found === undefined ? '' : `: ${formatNumber(found.servedH)} of ${formatNumber(found.ofH)} h`;
}

function Bar({ share }: { readonly share: number }) {
  return (
    <span className="relative block h-3 border border-rule" aria-hidden="true">
      <span className="absolute inset-y-0 left-0 bg-within" style={{ width: `${share * 100}%` }} />
    </span>
  );
}

function Spread({
  summary,
  isStartWithin,
}: {
  readonly summary: NightsSummary;
  /** Energy alone is no good news while the first seconds trip, or are not known. */
  readonly isStartWithin: boolean;
}) {
  return (
    <div className="grid gap-3">
      <p
        className={`text-lg font-semibold ${summary.carried < 0.95 ? 'text-over' : isStartWithin ? 'text-within' : 'text-ink'}`}
        role="status"
      >
        {percent(summary.carried)} of {summary.nights.toLocaleString('en')} outages are carried to their end
        {!isStartWithin && ' by their energy'}
        {summary.toTarget !== undefined &&
          `; ${percent(summary.toTarget)} to the hours that the site asks for`}
        .
      </p>
      <table className="schedule w-full text-[13px]">
        <caption className="text-left text-quiet">
          Share of the outage in which each board is served, and the hours of the outage at that rank
        </caption>
        <thead>
          <tr className="text-left text-quiet">
            {['Board', 'Worst 1 of 100', 'Worst 5 of 100', 'Middle'].map((title) => (
              <th key={title} scope="col" className="w-1/4 font-normal">
                {title}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {summary.boards.map(({ name, worst1, worst5, middle }, board) => (
            <tr key={name} className="border-t border-rule">
              <th scope="row" className="text-left font-normal">
                {name}
              </th>
              {[worst1, worst5, middle].map((share, at) => (
                <td key={at} className="tabular-nums">
                  {percent(share)}
                  {hoursWords(summary.boardHours[board], at)}
                  <Bar share={share} />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      <dl className="grid grid-cols-[auto_1fr] gap-x-4 text-[13px]">
        <dt className="text-quiet">Not served, on average</dt>
        <dd>{formatNumber(summary.unservedKwh)} kWh an outage</dd>
        <dt className="text-quiet">Generator, on average</dt>
        <dd>
          {formatNumber(summary.generatorH)} h, {formatNumber(summary.generatorStarts)} starts,{' '}
          {formatNumber(summary.litres)} L an outage
        </dd>
        <dt className="text-quiet">A limit of power was met in</dt>
        <dd>{percent(summary.overloaded)} of them</dd>
      </dl>
    </div>
  );
}

function Drivers({ played }: { readonly played: PlayedNights }) {
  if (played.drivers.length === 0) return null;
  return (
    <section>
      <h4 className="font-semibold">What would move it</h4>
      <p className="text-[13px] text-quiet">Each played over the same nights.</p>
      <table className="schedule text-[13px]">
        <tbody>
          {played.drivers.map(({ title, gain, summary }) => (
            <tr key={title} className="border-t border-rule">
              <th scope="row" className="text-left font-normal">
                {title}
              </th>
              <td className="tabular-nums">
                {gain >= 0 ? '+' : '−'}
                {percent(Math.abs(gain))}
              </td>
              <td className="text-quiet tabular-nums">to {percent(summary.carried)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

export type NightsFirst = Pick<
  Extract<KeptRehearsal, { played: 'nights' }>,
  'patternId' | 'typedHours' | 'nights' | 'seed'
>;

/** Many nights as the job keeps them. */
function nightsToKeep({ summary, how }: KeptNights) {
  const { carried, toTarget, boards, unservedKwh, generatorH, generatorStarts, litres, overloaded } = summary;
  return {
    played: 'nights' as const,
    seed: how.seed,
    nights: how.nights,
    patternId: how.pattern.id,
    ...(how.pattern.id === 'typed' ? { typedHours: [...how.typedHours] } : {}),
    fromFull: how.fromFull,
    carried,
    ...(toTarget === undefined ? {} : { toTarget }),
    boards: boards.map((board) => ({ ...board })),
    unservedKwh,
    generatorH,
    generatorStarts,
    litres,
    overloaded,
    bands: keptBands(summary.bands),
  };
}

interface NightsViewProps {
  readonly plant: Plant;
  readonly fromFull: boolean;
  readonly isStartWithin: boolean;
  /** What the form begins with: as a kept one was asked for. */
  readonly first: NightsFirst | undefined;
  /** Plays one of them again, minute by minute. */
  readonly onOpen: (night: number, how: KeptNights['how']) => void;
}

/** Ten thousand outages: the spread, and which choice moves it. A first picture comes at once and gets finer. */
export function NightsView({ plant, fromFull, isStartWithin, first, onOpen }: NightsViewProps) {
  const { stackId } = plant;
  const keepInJob = useKeep(plant);
  const { id, design, analysis } = useOpenJob();
  const key = `${id} ${stackId}`;
  const kept = useKeptNights((store) => store.kept.get(key));
  const keep = useKeptNights((store) => store.keep);
  const [patternId, setPatternId] = useState(first?.patternId ?? RURAL.id);
  const [hoursText, setHoursText] = useState((first?.typedHours ?? [2, 4, 8]).join(', '));
  const [nightsText, setNightsText] = useState(String(first?.nights ?? DEFAULT_NIGHTS));
  const [seedText, setSeedText] = useState(String(first?.seed ?? 1));
  const [share, setShare] = useState<number>();
  /** The picture while it gets finer; what is whole is kept. */
  const [sofar, setSofar] = useState<NightsSummary>();
  const [failure, setFailure] = useState('');
  const work = useRef<AbortController>(undefined);
  useEffect(() => () => work.current?.abort(), []);
  const isPlaying = share !== undefined;
  useEffect(() => {
    const likely = { seed: 1, nights: DEFAULT_NIGHTS, fromFull, patternId: RURAL.id, typedHours: [] };
    return isPlaying ? undefined : awaitNights(design, stackId, likely);
  }, [isPlaying, design, stackId, fromFull]);
  const typedHours = hoursText.split(/[,;\s]+/).flatMap((text) => readNumber(text) ?? []);
  const nights = readNumber(nightsText);
  const seed = readNumber(seedText);
  const problem =
    nights === undefined || nights < 10 || nights > 100_000
      ? 'From 10 to 100 000 outages can be played.'
      : seed === undefined || !Number.isInteger(seed)
        ? 'The seed is a whole number: the same one gives the same nights.'
        : patternId === 'typed' &&
            (typedHours.length === 0 || typedHours.some((one) => one <= 0 || one > 336))
          ? 'Type hours between 0 and 336, as "2, 4, 8".'
          : undefined;
  const play = (): void => {
    if (nights === undefined || seed === undefined) return;
    const chosenPattern = PATTERNS.find((one) => one.id === patternId) ?? typedPattern(typedHours);
    const controller = new AbortController();
    work.current = controller;
    setFailure('');
    setShare(0);
    runNights(
      design,
      stackId,
      { seed, nights: Math.round(nights), fromFull, patternId, typedHours },
      {
        plant,
        run: nightsRun(plant, analysis.installation, {
          seed,
          nights: Math.round(nights),
          fromFull,
          pattern: chosenPattern,
        }),
        onProgress: (done, part) => {
          setShare(done);
          setSofar(part);
        },
      },
      controller.signal,
    )
      .then(
        (found) => {
          if (found === undefined) return;
          keep(key, {
            summary: found.summary,
            played: found,
            plantKey: plantKey(plant),
            how: { pattern: chosenPattern, seed, nights: Math.round(nights), fromFull, typedHours },
          });
        },
        (error: unknown) => {
          if (!(error instanceof CalledOff))
            setFailure(error instanceof Error ? error.message : 'It could not be played.');
        },
      )
      .finally(() => {
        setShare(undefined);
        setSofar(undefined);
      });
  };
  const pattern = PATTERNS.find(({ id }) => id === patternId);
  const figures = useMemo(() => plantKey(plant), [plant]);
  const isStale = kept !== undefined && kept.plantKey !== figures;
  const summary = sofar ?? kept?.summary;
  return (
    <div className="grid gap-3">
      <div className="no-print flex flex-wrap items-end gap-3">
        <label>
          <span className="block text-[13px] text-quiet">How long outages last</span>
          <select className="input" value={patternId} onChange={({ target }) => setPatternId(target.value)}>
            {PATTERNS.map(({ id, title }) => (
              <option key={id} value={id}>
                {title}
              </option>
            ))}
            <option value="typed">As typed</option>
          </select>
        </label>
        {patternId === 'typed' && (
          <label>
            <span className="block text-[13px] text-quiet">Hours, each as likely</span>
            <input
              className="input"
              value={hoursText}
              onChange={({ target }) => setHoursText(target.value)}
            />
          </label>
        )}
        <label>
          <span className="block text-[13px] text-quiet">Outages</span>
          <input
            className="input w-28! text-right"
            inputMode="numeric"
            value={nightsText}
            onChange={({ target }) => setNightsText(target.value)}
          />
        </label>
        <label>
          <span className="block text-[13px] text-quiet">Seed</span>
          <input
            className="input w-20! text-right"
            inputMode="numeric"
            value={seedText}
            onChange={({ target }) => setSeedText(target.value)}
          />
        </label>
        {share === undefined ? (
          <button
            type="button"
            className="button button-main"
            disabled={problem !== undefined}
            onClick={play}
          >
            Play them
          </button>
        ) : (
          <button type="button" className="button" onClick={() => work.current?.abort()}>
            Call it off
          </button>
        )}
      </div>
      <p className="text-[13px] text-quiet">
        {problem ?? pattern?.meaning ?? 'Each of the typed lengths is as likely as the others.'} Season, hour,
        sky and load differ from one to the next.
      </p>
      <p role="alert" className="text-over empty:hidden">
        {failure}
      </p>
      {share !== undefined && <progress className="w-full" value={share} aria-label="Outages played" />}
      {isStale && <p className="text-tight">The design has moved on since these were played. Play again.</p>}
      {summary !== undefined && (
        <>
          <Spread summary={summary} isStartWithin={isStartWithin} />
          <NightBands bands={summary.bands} />
        </>
      )}
      {kept !== undefined && sofar === undefined && (
        <>
          <p className="text-[13px] text-quiet">
            {kept.how.nights.toLocaleString('en')} outages, {kept.how.pattern.title.toLowerCase()}, seed{' '}
            {kept.how.seed}, from {kept.how.fromFull ? 'a full bank' : 'the reserve'}.
          </p>
          <Drivers played={kept.played} />
          <BadNights
            worst={kept.summary.worst}
            nights={kept.summary.nights}
            onOpen={(night) => onOpen(night, kept.how)}
          />
          {keepInJob !== undefined && !isStale && (
            <p className="no-print">
              <button type="button" className="button" onClick={() => keepInJob(nightsToKeep(kept))}>
                <Archive size={15} aria-hidden="true" /> Keep them in the job
              </button>
            </p>
          )}
        </>
      )}
    </div>
  );
}
