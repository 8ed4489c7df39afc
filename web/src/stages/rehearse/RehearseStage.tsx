import {
  nightRun,
  nightsRun,
  outageRun,
  type OutageRun,
  type Plant,
  plantsOf,
  type Rehearsed,
  type RehearsalAsk,
} from '@bastion/core';
import { Tabs } from 'radix-ui';
import { useMemo, useState } from 'react';
import { useOpenJob } from '../../state/job.ts';
import { readNumber } from '../../ui/readNumber.ts';
import '../wiring/wiring.css';
import { MissingLinks } from './MissingLinks.tsx';
import { NightsView } from './NightsView.tsx';
import { OutageView } from './OutageView.tsx';
import { TransferView } from './TransferView.tsx';

const MONTHS = [
  'January',
  'February',
  'March',
  'April',
  'May',
  'June',
  'July',
  'August',
  'September',
  'October',
  'November',
  'December',
];

const TABS = [
  { key: 'transfer', title: 'The first seconds' },
  { key: 'outage', title: 'One outage' },
  { key: 'nights', title: 'Many nights' },
] as const;
type TabKey = (typeof TABS)[number]['key'];

interface Asked {
  readonly startH: string;
  readonly hours: string;
  readonly month: number;
  readonly sky: number;
  readonly fromFull: boolean;
  readonly withChance: boolean;
  readonly lose: '' | 'unit' | 'module';
  readonly loseAtH: string;
}

function askOf(asked: Asked): RehearsalAsk | string {
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
    ...(asked.lose === '' || atH === undefined ? {} : { lose: { what: asked.lose, atH } }),
  };
}

function OutageForm({
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
      <label>
        <span className="block text-[13px] text-quiet">Grid goes at, h</span>
        <input
          className="input w-20! text-right"
          inputMode="decimal"
          value={asked.startH}
          onChange={({ target }) => onAsk({ ...asked, startH: target.value })}
        />
      </label>
      <label>
        <span className="block text-[13px] text-quiet">Lasts, h</span>
        <input
          className="input w-20! text-right"
          inputMode="decimal"
          value={asked.hours}
          onChange={({ target }) => onAsk({ ...asked, hours: target.value })}
        />
      </label>
      <label>
        <span className="block text-[13px] text-quiet">Month</span>
        <select
          className="input"
          value={asked.month}
          onChange={({ target }) => onAsk({ ...asked, month: Number(target.value) })}
        >
          {MONTHS.map((name, at) => (
            <option key={name} value={at + 1}>
              {name}
            </option>
          ))}
        </select>
      </label>
      <label>
        <span className="block text-[13px] text-quiet">Sky</span>
        <select
          className="input"
          value={asked.sky}
          onChange={({ target }) => onAsk({ ...asked, sky: Number(target.value) })}
        >
          <option value={1}>clear</option>
          <option value={0.5}>broken</option>
          <option value={0.15}>overcast</option>
        </select>
      </label>
      <label>
        <span className="block text-[13px] text-quiet">Bank begins</span>
        <select
          className="input"
          value={asked.fromFull ? 'full' : 'reserve'}
          onChange={({ target }) => onAsk({ ...asked, fromFull: target.value === 'full' })}
        >
          <option value="reserve">at the reserve, {Math.round(plant.reserveSoc * 100)} %</option>
          <option value="full">full</option>
        </select>
      </label>
      <label>
        <span className="block text-[13px] text-quiet">Load</span>
        <select
          className="input"
          value={asked.withChance ? 'chance' : 'average'}
          onChange={({ target }) => onAsk({ ...asked, withChance: target.value === 'chance' })}
        >
          <option value="average">as planned</option>
          <option value="chance">with chance</option>
        </select>
      </label>
      <label>
        <span className="block text-[13px] text-quiet">Fails</span>
        <select
          className="input"
          value={asked.lose}
          onChange={({ target }) =>
            onAsk({
              ...asked,
              lose: target.value === 'unit' || target.value === 'module' ? target.value : '',
            })
          }
        >
          <option value="">nothing</option>
          <option value="unit">a unit</option>
          <option value="module">a module</option>
        </select>
      </label>
      {asked.lose !== '' && (
        <label>
          <span className="block text-[13px] text-quiet">After, h</span>
          <input
            className="input w-20! text-right"
            inputMode="decimal"
            value={asked.loseAtH}
            onChange={({ target }) => onAsk({ ...asked, loseAtH: target.value })}
          />
        </label>
      )}
    </fieldset>
  );
}

function OneSet({
  rehearsed,
  tab,
  onTab,
}: {
  readonly rehearsed: Rehearsed;
  readonly tab: TabKey;
  readonly onTab: (tab: TabKey) => void;
}) {
  const { analysis, design } = useOpenJob();
  const { installation } = analysis;
  const [asked, setAsked] = useState<Asked>(() => ({
    startH: String(design.site.outageStartH ?? 18),
    hours: String(design.site.targetAutonomyH ?? 24),
    month: (design.site.latitudeDeg ?? 1) < 0 ? 6 : 12,
    sky: 0.5,
    fromFull: false,
    withChance: false,
    lose: '',
    loseAtH: '1',
  }));
  // A night that was picked among many is played instead of the outage that is asked for.
  const [night, setNight] = useState<OutageRun>();
  const plant = rehearsed.plant.known ? rehearsed.plant.value : undefined;
  const ask = askOf(asked);
  const run = useMemo(
    () => (plant === undefined || typeof ask === 'string' ? undefined : outageRun(plant, installation, ask)),
    // The question is a new object each time; what it is made of is not.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [plant, installation, asked],
  );
  const shown = night ?? run;
  return (
    <Tabs.Root
      value={tab}
      onValueChange={(value) => onTab(TABS.find(({ key }) => key === value)?.key ?? 'outage')}
    >
      <Tabs.List className="no-print mb-2 flex flex-wrap gap-1 border-b border-rule" aria-label="Clocks">
        {TABS.map(({ key, title }) => (
          <Tabs.Trigger
            key={key}
            value={key}
            className="border-b-2 border-transparent px-2 py-1 text-touch data-[state=active]:border-touch data-[state=active]:font-semibold data-[state=active]:text-ink"
          >
            {title}
          </Tabs.Trigger>
        ))}
      </Tabs.List>
      <Tabs.Content value="transfer">
        <TransferView compiled={rehearsed.compiled} />
      </Tabs.Content>
      <Tabs.Content value="outage">
        {plant === undefined ? (
          <MissingLinks missing={rehearsed.plant.known ? [] : rehearsed.plant.missing} />
        ) : (
          <div className="grid gap-3">
            {night === undefined ? (
              <OutageForm asked={asked} plant={plant} onAsk={setAsked} />
            ) : (
              <p className="no-print">
                The worst of many nights.{' '}
                <button type="button" className="button" onClick={() => setNight(undefined)}>
                  Back to an outage of your own
                </button>
              </p>
            )}
            {typeof ask === 'string' && <p className="text-over">{ask}</p>}
            {plant.leftOut.map((sentence) => (
              <p key={sentence} className="text-[13px] text-unknown">
                {sentence}
              </p>
            ))}
            {shown !== undefined && <OutageView plant={plant} run={shown} />}
          </div>
        )}
      </Tabs.Content>
      <Tabs.Content value="nights">
        {plant === undefined ? (
          <MissingLinks missing={rehearsed.plant.known ? [] : rehearsed.plant.missing} />
        ) : (
          <NightsView
            stackId={plant.stackId}
            fromFull={asked.fromFull}
            onWorst={(number, { pattern, seed, nights }) => {
              const many = nightsRun(plant, installation, {
                seed,
                nights,
                pattern,
                fromFull: asked.fromFull,
              });
              setNight(nightRun(many, number));
              onTab('outage');
            }}
          />
        )}
      </Tabs.Content>
    </Tabs.Root>
  );
}

/** What happens when the grid goes away: in the first seconds, over hours, and over many nights. */
export function RehearseStage() {
  const { analysis } = useOpenJob();
  const sets = useMemo(() => plantsOf(analysis.installation), [analysis.installation]);
  const [chosenId, setChosenId] = useState<string>();
  const [tab, setTab] = useState<TabKey>('outage');
  const chosen = sets.find(({ compiled }) => compiled.stack.id === chosenId) ?? sets[0];
  if (chosen === undefined)
    return (
      <div className="sheet max-w-xl p-6">
        <h2>Nothing to rehearse yet</h2>
        <p className="mt-2">
          An outage can be played forward once there are inverters with a battery in Stack that feed a
          backed-up board.
        </p>
      </div>
    );
  return (
    <section className="sheet grid gap-3 p-3">
      <h2 className="sr-only">Rehearse</h2>
      {sets.length > 1 && (
        <label className="no-print max-w-xs">
          <span className="block text-[13px] text-quiet">Set</span>
          <select
            className="input"
            value={chosen.compiled.stack.id}
            onChange={({ target }) => setChosenId(target.value)}
          >
            {sets.map(({ compiled }) => (
              <option key={compiled.stack.id} value={compiled.stack.id}>
                {compiled.stack.name}
              </option>
            ))}
          </select>
        </label>
      )}
      <OneSet key={chosen.compiled.stack.id} rehearsed={chosen} tab={tab} onTab={setTab} />
      <p className="text-[13px] text-quiet">
        A rehearsal plays figures, not the site. What the site does is found by the islanding test.
      </p>
    </section>
  );
}
