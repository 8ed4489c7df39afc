import {
  banksApart,
  type KeptRehearsal,
  nightRun,
  nightsRun,
  outageRun,
  type OutageRun,
  type Plant,
  plantsOf,
  type Rehearsed,
  transferOf,
} from '@bastion/core';
import { Tabs } from 'radix-ui';
import { useMemo, useState } from 'react';
import { useOpenJob } from '../../state/job.ts';
import '../wiring/wiring.css';
import { BankChoice } from './BankChoice.tsx';
import { MissingLinks } from './MissingLinks.tsx';
import { NightsView } from './NightsView.tsx';
import { KeptList } from './KeptList.tsx';
import { type Asked, askedAgain, askOf, OutageForm } from './OutageForm.tsx';
import { OutageView } from './OutageView.tsx';
import { useKeptOutage } from './keptOutage.ts';
import { playBank, playOutage, verdictOf } from './playOutage.ts';
import { SetRuler } from './ruler/SetRuler.tsx';
import { AHEAD_S } from './ruler/timeScale.ts';
import { useRuler } from './ruler/useRuler.ts';
import { startOf } from './startOf.ts';
import { useBatteryMoment } from './useBatteryMoment.ts';
import { TransferView } from './TransferView.tsx';

const TABS = [
  { key: 'transfer', title: 'The first seconds' },
  { key: 'outage', title: 'One outage' },
  { key: 'nights', title: 'Many nights' },
] as const;
type TabKey = (typeof TABS)[number]['key'];

/** What of the ruler the first clock looks at. */
const FIRST_SECONDS = { fromS: -AHEAD_S, toS: 10 } as const;

function LeftOut({ plant }: { readonly plant: Plant }) {
  return plant.leftOut.map((sentence) => (
    <p key={sentence} className="text-[13px] text-unknown">
      {sentence}
    </p>
  ));
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
  const [night, setNight] = useState<{ readonly number: number; readonly run: OutageRun }>();
  const [first, setFirst] = useState<Extract<KeptRehearsal, { played: 'nights' }>>();
  const whole = rehearsed.plant.known ? rehearsed.plant.value : undefined;
  const apart = useMemo(
    () => (whole === undefined ? [] : banksApart(whole, rehearsed.compiled)),
    [whole, rehearsed.compiled],
  );
  const [bank, setBank] = useState('');
  const picked = apart.findIndex(({ label }) => label === bank);
  const plant = apart[picked]?.plant ?? whole;
  const ask = useMemo(() => askOf(asked), [asked]);
  const run = useMemo(
    // Of the whole set: which unit may fail is known there, and the banks are played with the same outage.
    () => (whole === undefined || typeof ask === 'string' ? undefined : outageRun(whole, installation, ask)),
    [whole, installation, ask],
  );
  const transfer = useMemo(() => transferOf(rehearsed.compiled), [rehearsed.compiled]);
  const battery = useBatteryMoment(rehearsed.compiled.stack.id);
  const start = startOf(design, transfer, battery);
  const shown = night?.run ?? run;
  const played = useMemo(
    () =>
      plant === undefined || shown === undefined
        ? undefined
        : (playBank(apart, picked, shown) ?? playOutage(plant, shown)),
    [plant, shown, apart, picked],
  );
  const kept = useKeptOutage((store) => store.kept);
  const wholeS = Math.max(shown?.minutes ?? 1, kept?.minutes ?? 0) * 60;
  const ruler = useRuler(wholeS, tab === 'transfer' ? FIRST_SECONDS : 'whole');
  const ruled =
    plant === undefined || played === undefined ? null : (
      <SetRuler
        ruler={ruler}
        wholeS={wholeS}
        plant={plant}
        transfer={transfer.known ? transfer.value : undefined}
        played={played}
        kept={kept?.played}
        frequencyHz={design.site.frequencyHz}
        isOfSeconds={tab === 'transfer'}
      />
    );
  return (
    <Tabs.Root
      value={tab}
      onValueChange={(value) => {
        const next = TABS.find(({ key }) => key === value)?.key ?? 'outage';
        // Each clock is a part of the one ruler.
        if (next !== 'nights') ruler.show(next === 'transfer' ? FIRST_SECONDS : 'whole');
        onTab(next);
      }}
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
        <TransferView
          compiled={rehearsed.compiled}
          transfer={transfer}
          start={start}
          battery={battery}
          ruler={ruled}
        />
      </Tabs.Content>
      <Tabs.Content value="outage">
        {plant === undefined ? (
          <MissingLinks missing={rehearsed.plant.known ? [] : rehearsed.plant.missing} />
        ) : (
          <div className="grid gap-3">
            {night === undefined ? (
              <OutageForm asked={asked} plant={whole ?? plant} onAsk={setAsked} />
            ) : (
              <p className="no-print">
                Night {night.number + 1} of many.{' '}
                <button type="button" className="button" onClick={() => setNight(undefined)}>
                  Back to an outage of your own
                </button>
              </p>
            )}
            {typeof ask === 'string' && <p className="text-over">{ask}</p>}
            <BankChoice apart={apart} run={shown} bank={bank} onBank={setBank} />
            <p className="text-[13px] text-quiet">{plant.loadFrom}</p>
            <LeftOut plant={plant} />
            {shown !== undefined && played !== undefined && (
              <OutageView
                plant={plant}
                run={shown}
                played={played}
                verdict={verdictOf(played, shown, plant, start)}
                ask={night === undefined && bank === '' && typeof ask !== 'string' ? ask : undefined}
                ruler={ruled}
                onGo={ruler.moveTo}
              />
            )}
          </div>
        )}
      </Tabs.Content>
      <Tabs.Content value="nights">
        {whole === undefined ? (
          <MissingLinks missing={rehearsed.plant.known ? [] : rehearsed.plant.missing} />
        ) : (
          <div className="grid gap-3">
            <LeftOut plant={whole} />
            {start.state !== 'within' && (
              <p className={start.state === 'over' ? 'text-over' : 'text-unknown'}>
                These nights count energy alone. In the first seconds: {start.words}
              </p>
            )}
            <NightsView
              key={first?.id ?? 'own'}
              plant={whole}
              fromFull={asked.fromFull}
              isStartWithin={start.state === 'within'}
              first={first}
              onOpen={(number, { pattern, seed, nights, fromFull }) => {
                const many = nightsRun(whole, installation, {
                  seed,
                  nights,
                  pattern,
                  fromFull,
                });
                setNight({ number, run: nightRun(many, number) });
                onTab('outage');
              }}
            />
          </div>
        )}
      </Tabs.Content>
      <KeptList
        stackId={rehearsed.compiled.stack.id}
        plant={whole}
        onAgain={(kept) => {
          setNight(undefined);
          setAsked((before) => askedAgain(before, kept));
          if (kept.played === 'nights') setFirst(kept);
          onTab(kept.played);
        }}
      />
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
