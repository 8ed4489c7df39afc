import type { SiteCommand, siteWire } from '@bastion/core';
import { Power, RefreshCw } from 'lucide-react';
import { Link } from 'react-router';
import { useOpenJob } from '../../../state/job.ts';
import { ExercisePanel, ExerciseStart } from './ExercisePanel.tsx';
import { FaultPlanter } from './FaultPlanter.tsx';
import { SetPanel } from './SetPanel.tsx';
import { SitePicture, siteTime } from './SitePicture.tsx';
import { CircuitSwitches, SourceSwitches } from './SiteSwitches.tsx';
import { type UsedSite, useSite } from './useSite.ts';

const SPEEDS = [
  [0, 'stands still'],
  [1, 'as the clock'],
  [10, '10 times'],
  [60, '60 times'],
  [100, '100 times'],
] as const;

/** The installation of this job running in time, to be worked like the real one. */
export function SitePage() {
  const { id, canTest } = useOpenJob();
  const used = useSite(id);
  const { state, failure } = used;
  return (
    <div className="field-page grid gap-3">
      <div className="flex flex-wrap items-center gap-2">
        <h2>Simulated site</h2>
        <Link className="ml-auto" to={`/jobs/${id}/test`}>
          Back to the test
        </Link>
      </div>
      <p role="alert" className="font-semibold text-over empty:hidden">
        {failure}
      </p>
      {state.kind === 'closed' && (
        <section className="sheet max-w-2xl p-4">
          <p>
            The installation as this design has it, running in time: switch it, load it, take its grid away,
            plant faults in it. It answers by Modbus TCP like a real one, so that the test can read from it
            live.
          </p>
          <button type="button" className="button button-main mt-3" disabled={!canTest} onClick={used.open}>
            <Power size={18} aria-hidden="true" /> Open the site
          </button>
          {!canTest && (
            <p className="mt-2 text-quiet">Your role reads test records; it does not run tests.</p>
          )}
        </section>
      )}
      {state.kind === 'open' && <OpenedSite used={used} site={state.site} menu={state.menu} />}
    </div>
  );
}

function OpenedSite({
  used,
  site,
  menu,
}: {
  readonly used: UsedSite;
  readonly site: siteWire.OpenSite;
  readonly menu: siteWire.SiteMenu;
}) {
  const { canTest: canAct, revision } = useOpenJob();
  const { view } = site;
  const isBlind = view.exercise !== undefined && view.exercise.result === undefined;
  const command = (one: SiteCommand): void => void used.act({ kind: 'command', command: one });
  return (
    <>
      <div className="sheet flex flex-wrap items-center gap-x-4 gap-y-2 p-3">
        <button
          type="button"
          className="button button-main"
          disabled={!canAct}
          onClick={() => void used.act({ kind: 'bring-up' })}
        >
          <Power size={18} aria-hidden="true" /> Bring everything up
        </button>
        <label className="flex items-center gap-2">
          <span className="text-quiet">Its time runs</span>
          <select
            className="input w-36"
            disabled={!canAct}
            value={String(site.speed)}
            onChange={({ target }) => void used.act({ kind: 'speed', speed: Number(target.value) })}
          >
            {SPEEDS.map(([speed, words]) => (
              <option key={speed} value={speed}>
                {words}
              </option>
            ))}
          </select>
        </label>
        <span>
          Modbus TCP <code>{`${site.host}:${site.port}`}</code>, unit <code>{site.unitId}</code>
        </span>
        <span className={site.revision === revision ? 'text-quiet' : 'font-semibold text-tight'}>
          from revision {site.revision}
          {site.revision !== revision && `; the design is at ${revision} now`}
        </span>
        <span className="flex-1" />
        <button type="button" className="button" disabled={!canAct} onClick={used.open}>
          <RefreshCw size={16} aria-hidden="true" /> Begin anew
        </button>
        <button type="button" className="button" disabled={!canAct} onClick={used.close}>
          Close it
        </button>
      </div>
      {menu.leftOut.length > 0 && (
        <ul className="border-l-4 border-unknown bg-unknown-wash p-2">
          {menu.leftOut.map((sentence) => (
            <li key={sentence}>{sentence}</li>
          ))}
        </ul>
      )}
      <div className="grid items-start gap-3 lg:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
        <div className="grid gap-3">
          {!isBlind && <SitePicture view={view} />}
          <SourceSwitches view={view} canAct={canAct} onCommand={command} />
          {view.sets.map((set) => (
            <SetPanel key={set.stackId} set={set} canAct={canAct} isBlind={isBlind} onCommand={command} />
          ))}
        </div>
        <div className="grid gap-3">
          {view.exercise !== undefined && (
            <ExercisePanel
              exercise={view.exercise}
              menu={menu}
              canAct={canAct}
              onAct={async (act) => {
                const answer = await used.act({ kind: 'act', act });
                return answer?.shown;
              }}
            />
          )}
          {!isBlind && (
            <>
              <FaultPlanter menu={menu} faults={view.faults} canAct={canAct} onCommand={command} />
              <ExerciseStart canAct={canAct} onStart={(ask) => void used.act({ kind: 'exercise', ask })} />
            </>
          )}
          <CircuitSwitches view={view} canAct={canAct} onCommand={command} />
          {view.events.length > 0 && <Events events={view.events} />}
        </div>
      </div>
      <p className="text-[13px] text-quiet">
        A simulation shows what follows from the design as it is entered. It proves nothing about a real
        installation, and does not replace its test.
      </p>
    </>
  );
}

function Events({ events }: { readonly events: siteWire.OpenSite['view']['events'] }) {
  return (
    <section className="sheet p-3" aria-label="What happened">
      <h3 className="font-semibold">What happened</h3>
      <ol
        className="mt-1 grid max-h-80 gap-1 overflow-y-auto"
        tabIndex={0}
        aria-label="Events, the latest first"
      >
        {[...events].reverse().map(({ atS, sentence }, index) => (
          <li key={index} className="flex gap-2">
            <span className="text-quiet tabular-nums">{siteTime(atS)}</span>
            <span>{sentence}</span>
          </li>
        ))}
      </ol>
    </section>
  );
}
