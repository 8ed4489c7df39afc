import { formatQuantity, type siteWire } from '@bastion/core';
import { TriangleAlert } from 'lucide-react';

type SetView = siteWire.OpenSite['view']['sets'][number];

const PHASE_WORDS: Readonly<Record<SetView['phase'], string>> = {
  off: 'off',
  starting: 'its units wake',
  waiting: 'watches the source',
  joined: 'joined to the source',
  island: 'makes an island',
  dark: 'dark',
  tripped: 'tripped',
  empty: 'battery empty',
};

/** What a set does and reports: what stopped it catches the eye first. */
function SetState({ set: { name, phase, reason, messages } }: { readonly set: SetView }) {
  const isBad = phase === 'tripped' || phase === 'dark' || phase === 'empty';
  return (
    <div className={`border-l-4 p-2 ${isBad ? 'border-over bg-over-wash' : 'border-rule'}`} role="status">
      <p className={isBad ? 'font-semibold' : ''}>
        {isBad && <TriangleAlert size={15} className="mr-1 inline text-over" aria-hidden="true" />}
        {name}: {PHASE_WORDS[phase]}
        {reason !== '' && `: ${reason}`}
      </p>
      {messages.length > 0 && <p>Reports: {messages.join('; ')}.</p>}
    </div>
  );
}

const MODE_WORDS: Readonly<Record<string, string>> = {
  'on-grid': 'On grid',
  island: 'Island',
  'generator-port': 'Generator at its port',
  'transfer-switch': 'Generator by transfer switch',
  'generator-inlet': 'Generator at the inlet',
  'maintenance-bypass': 'Maintenance bypass',
};

/** Hours, minutes and seconds of the site. */
export function siteTime(seconds: number): string {
  const whole = Math.floor(seconds);
  const two = (value: number): string => String(value).padStart(2, '0');
  return `${Math.floor(whole / 3600)}:${two(Math.floor(whole / 60) % 60)}:${two(whole % 60)}`;
}

/** What stands on the lines and boards now. */
export function SitePicture({ view }: { readonly view: siteWire.OpenSite['view'] }) {
  return (
    <section className="sheet p-3" aria-label="As it stands">
      <div className="flex flex-wrap items-baseline gap-x-4">
        <h3 className="font-semibold">{MODE_WORDS[view.mode] ?? view.mode}</h3>
        <span className="text-quiet">{siteTime(view.timeS)} since it was opened</span>
      </div>
      <div className="mt-2 grid gap-2">
        {view.sets.map((set) => (
          <SetState key={set.stackId} set={set} />
        ))}
      </div>
      <table className="mt-2 w-full text-right tabular-nums">
        <thead className="text-[13px] text-quiet">
          <tr>
            <th className="text-left font-normal">Line</th>
            <th className="font-normal">Voltage</th>
            <th className="font-normal">Backed-up load</th>
            <th className="font-normal">From the grid</th>
          </tr>
        </thead>
        <tbody>
          {view.lines.map(({ line, voltageV, loadA, loadW, gridW }) => (
            <tr key={line} className="border-t border-rule">
              <th className="text-left font-semibold">{line}</th>
              <td>{voltageV.toFixed(1)} V</td>
              <td>
                {formatQuantity(loadW, 'W')} <span className="text-quiet">{loadA.toFixed(1)} A</span>
              </td>
              <td>{formatQuantity(gridW, 'W')}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <ul className="mt-2 flex flex-wrap gap-2">
        {view.boards.map(({ name, isLive }) => (
          <li key={name} className={`site-board ${isLive ? 'site-board-live' : ''}`}>
            {name}: <strong>{isLive ? 'live' : 'dark'}</strong>
          </li>
        ))}
      </ul>
    </section>
  );
}
