import {
  batteryInStart,
  type CheckId,
  compareFindings,
  type Design,
  type Finding,
  formatQuantity,
  type Known,
  type LinePickup,
  motorStart,
  type MotorStart,
  type Rehearsed,
  sentenceOf,
  startersOf,
  subjectKey,
  type Transfer,
  transferWave,
  writeComtradeFile,
} from '@bastion/core';
import { Download } from 'lucide-react';
import { type ReactNode, useMemo, useState } from 'react';
import { downloadBlob } from '../../state/documentFile.ts';
import { useOpenJob } from '../../state/job.ts';
import { noteExport } from '../../state/noteExport.ts';
import { MissingLinks } from './MissingLinks.tsx';
import { type RehearsalVerdict, Verdict } from './Verdict.tsx';
import { FindingList, useFindingsAbout } from '../../ui/FindingLines.tsx';
import { StateMark } from '../../ui/StateMark.tsx';

function Pickup({ pickup }: { readonly pickup: LinePickup }) {
  const most = Math.max(pickup.ratedVa, ...pickup.steps.map(({ va }) => va));
  if (pickup.steps.length === 0) return null;
  return (
    <tbody>
      {pickup.steps.map(({ fromS, toS, va, voltage }, at) => (
        <tr key={fromS} className="border-t border-rule align-middle">
          <th scope="row" className="text-left font-normal">
            {at === 0 ? pickup.line : ''}
          </th>
          <td className="whitespace-nowrap tabular-nums">
            {fromS.toFixed(2)} to {toS.toFixed(2)} s
          </td>
          <td className="text-right tabular-nums">{formatQuantity(va, 'VA')}</td>
          <td className="w-full">
            <span className="relative block h-3 border border-rule" aria-hidden="true">
              <span
                className={`absolute inset-y-0 left-0 ${va > pickup.ratedVa ? 'bg-tight' : 'bg-within'}`}
                style={{ width: `${(va / most) * 100}%` }}
              />
              <span
                className="absolute inset-y-0 w-0.5 bg-ink"
                style={{ left: `${(pickup.ratedVa / most) * 100}%` }}
              />
            </span>
          </td>
          <td className="text-right tabular-nums">{Math.round(voltage * 100)} %</td>
        </tr>
      ))}
    </tbody>
  );
}

/** The rehearsed transfer as a record like one captured on site, to lay beside it. */
function RecordButton({ transfer }: { readonly transfer: Transfer }) {
  const { design } = useOpenJob();
  const { lineVoltageV, frequencyHz } = design.site;
  if (lineVoltageV === undefined || frequencyHz === undefined) return null;
  const save = (): void => {
    const record = transferWave(transfer, { title: `${design.name} rehearsed`, lineVoltageV, frequencyHz });
    const bytes = writeComtradeFile(record, new Date().toISOString().slice(0, 10));
    noteExport('cff');
    downloadBlob(new Blob([new Uint8Array(bytes)]), 'rehearsed-transfer.cff');
  };
  return (
    <p className="no-print">
      <button type="button" className="button" onClick={save}>
        <Download size={15} aria-hidden="true" /> As a waveform record
      </button>
    </p>
  );
}

/** What the battery bears meanwhile; each opens into its working. */
function Battery({ battery }: { readonly battery: readonly Finding[] }) {
  if (battery.length === 0) return null;
  return (
    <section aria-label="The battery meanwhile">
      <h3 className="font-semibold">The battery meanwhile</h3>
      <FindingList found={battery} />
    </section>
  );
}

type CompiledStack = Rehearsed['compiled'];

interface FirstSeconds {
  readonly compiled: CompiledStack;
  readonly ruler: ReactNode;
  readonly start: RehearsalVerdict;
  readonly battery: readonly Finding[];
}

function Played({
  transfer,
  start,
  battery,
  ruler,
  compiled,
}: FirstSeconds & { readonly transfer: Transfer }) {
  return (
    <div className="grid gap-3">
      <Verdict verdict={start} />
      {ruler}
      {transfer.missing.length > 0 && (
        <MissingLinks title="Loads of which nobody has said what gap they take:" missing={transfer.missing} />
      )}
      <p className="text-[13px] text-quiet">
        The gap lasts {transfer.gapMs} ms, by {transfer.gapSetBy}. After it everything that restarts by itself
        starts together, or with the delays of the design.
      </p>
      <RecordButton transfer={transfer} />
      <ol className="text-[13px]" aria-label="Events">
        {transfer.events.map(({ atS, sentence, isBad }, at) => (
          <li key={at} className={isBad ? 'text-over' : ''}>
            <span className="inline-block w-24 tabular-nums text-quiet">{Math.round(atS * 1000)} ms</span>
            {sentence}
          </li>
        ))}
      </ol>
      <Battery battery={battery} />
      <Pickups lines={transfer.lines} label="Pickup" />
      <ChosenStart compiled={compiled} />
      <Takeovers stackId={compiled.stack.id} />
    </div>
  );
}

/** What a step of load does to a generator: whether it takes it, how far voltage and frequency fall, and when they are back. */
const TAKEOVER: readonly CheckId[] = ['generator.step', 'generator.dip'];

function Takeover({ generatorId, name }: { readonly generatorId: string; readonly name: string }) {
  const found = useFindingsAbout(TAKEOVER, { kind: 'generator', id: generatorId });
  if (found.length === 0) return null;
  return (
    <section aria-label={`${name} takes over`} className="border-t border-rule pt-2">
      <h3 className="font-semibold">{name} takes over</h3>
      <FindingList found={found} />
    </section>
  );
}

function Takeovers({ stackId }: { readonly stackId: string }) {
  const { generators } = useOpenJob().analysis.installation;
  return generators
    .filter(({ generator }) => generator.stackId === stackId)
    .map(({ generator }) => <Takeover key={generator.id} generatorId={generator.id} name={generator.name} />);
}

/** The battery in a start that is played: what is found of it is of this start alone, and stands in no list of the job. */
function BatterySentences({ battery }: { readonly battery: readonly Finding[] }) {
  const { design } = useOpenJob();
  if (battery.length === 0) return null;
  return (
    <section aria-label="The battery in this start">
      <h3 className="font-semibold">The battery in this start</h3>
      <ul className="mt-1 text-[13px]">
        {battery.map((finding) => (
          <li
            key={`${finding.check} ${subjectKey(finding.subject)}`}
            className="flex items-start gap-2 py-0.5"
          >
            <span className="shrink-0">
              <StateMark state={finding.state} />
            </span>
            <span className="min-w-0">{sentenceOf(design, finding)}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What a chosen start comes to: on the lines, and at the battery. */
function startVerdict(
  design: Design,
  { events, label }: MotorStart,
  battery: readonly Finding[],
): RehearsalVerdict {
  const bad = events.find(({ isBad }) => isBad);
  if (bad !== undefined) return { state: 'over', words: bad.sentence };
  if (battery.length === 0)
    return {
      state: 'unknown',
      words: `${label} keeps to the overload curve; nothing is known of the battery.`,
    };
  const over = battery.find(({ state }) => state === 'over');
  if (over !== undefined) return { state: 'over', words: sentenceOf(design, over) };
  const open = battery.find(({ state }) => state === 'unknown');
  return open === undefined
    ? { state: 'within', words: `${label} starts, within the overload curve and what the battery bears.` }
    : {
        state: 'unknown',
        words: `${label} keeps to the overload curve; whether the battery bears it is not known: ${sentenceOf(design, open)}`,
      };
}

/** One start of a chosen item, while everything else runs. */
function ChosenStart({ compiled }: Pick<FirstSeconds, 'compiled'>) {
  const { design, analysis } = useOpenJob();
  const { installation } = analysis;
  const [key, setKey] = useState('');
  const starters = useMemo(() => startersOf(compiled), [compiled]);
  const start = useMemo(() => (key === '' ? undefined : motorStart(compiled, key)), [compiled, key]);
  const found = start?.known === true ? start.value : undefined;
  const battery = useMemo(
    () =>
      found === undefined
        ? []
        : [...batteryInStart(installation, compiled.stack.id, key)].sort(compareFindings),
    [installation, compiled, found, key],
  );
  if (!starters.known || starters.value.length === 0) return null;
  return (
    <section aria-label="One start" className="grid gap-2 border-t border-rule pt-2">
      <label className="no-print max-w-sm">
        <span className="block text-[13px] text-quiet">One start in island, while everything else runs</span>
        <select className="input" value={key} onChange={({ target }) => setKey(target.value)}>
          <option value="">choose what starts</option>
          {starters.value.map((one) => (
            <option key={one.key} value={one.key}>
              {one.label}
            </option>
          ))}
        </select>
      </label>
      {start?.known === false && <MissingLinks missing={start.missing} />}
      {found !== undefined && (
        <>
          <Verdict verdict={startVerdict(design, found, battery)} />
          <Pickups lines={found.lines} label={`Start of ${found.label}`} />
          <BatterySentences battery={battery} />
        </>
      )}
    </section>
  );
}

/** Stretch by stretch and line by line, what is asked for beside what is carried for long. */
function Pickups({ lines, label }: { readonly lines: readonly LinePickup[]; readonly label: string }) {
  return (
    <div className="relative overflow-x-auto" tabIndex={0} role="region" aria-label={label}>
      <table className="schedule w-full text-[13px]">
        <thead>
          <tr className="text-left text-quiet">
            {['Line', 'When', 'Asked for', 'Beside what it carries for long', 'Voltage'].map((title) => (
              <th key={title} scope="col" className="font-normal">
                {title}
              </th>
            ))}
          </tr>
        </thead>
        {lines.map((pickup) => (
          <Pickup key={pickup.line} pickup={pickup} />
        ))}
      </table>
    </div>
  );
}

/** The first seconds: the gap, what drops out in it, and the pickup against the overload curve. */
export function TransferView({ transfer, ...rest }: FirstSeconds & { readonly transfer: Known<Transfer> }) {
  return transfer.known ? (
    <Played transfer={transfer.value} {...rest} />
  ) : (
    <MissingLinks missing={transfer.missing} />
  );
}
