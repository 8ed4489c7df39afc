import {
  type ExerciseAct,
  type ExerciseAsk,
  type FaultKind,
  FAULT_KINDS,
  type siteWire,
} from '@bastion/core';
import { Ruler, ShieldCheck } from 'lucide-react';
import { useState } from 'react';
import { FormChoice } from '../../../ui/FormChoice.tsx';
import { FaultSelects, NO_CHOICE } from './FaultPlanter.tsx';
import { siteTime } from './SitePicture.tsx';

type View = NonNullable<siteWire.OpenSite['view']['exercise']>;

const DIFFICULTIES = [
  [1, 'easy: something is plainly missing'],
  [2, 'harder: settings, addresses, directions'],
  [3, 'hardest: only a measurement finds it'],
] as const;
const difficultyOf = (text: string): ExerciseAsk['difficulty'] =>
  DIFFICULTIES.find(([level]) => String(level) === text)?.[0];

const WORTH_WORDS: Readonly<Record<View['lines'][number]['worth'], string>> = {
  needed: 'told something',
  extra: 'told nothing of it',
  dangerous: 'dangerous',
  wrong: 'wrong',
  noted: '',
};

/** Asks for a fault: by chance and difficulty, or of a kind. */
export function ExerciseStart({
  canAct,
  onStart,
}: {
  readonly canAct: boolean;
  readonly onStart: (ask: ExerciseAsk) => void;
}) {
  const [difficulty, setDifficulty] = useState('2');
  const [kind, setKind] = useState('');
  const kinds = Object.keys(FAULT_KINDS).filter((one): one is FaultKind => Object.hasOwn(FAULT_KINDS, one));
  const chosen = kinds.find((one) => one === kind);
  return (
    <section className="sheet grid content-start gap-2 p-3" aria-label="Apprentice">
      <h3 className="font-semibold">Apprentice</h3>
      <p>
        A fault is planted that you are not shown. Work the site, measure, name what is wrong and where. What
        you measured, what was needed and what was dangerous is told at the end.
      </p>
      <FormChoice
        label="How hard"
        value={difficulty}
        disabled={!canAct || chosen !== undefined}
        options={DIFFICULTIES.map(([level, label]) => ({ value: String(level), label }))}
        onChoose={setDifficulty}
      />
      <FormChoice
        label="Kind of fault"
        value={kind}
        disabled={!canAct}
        emptyLabel="by chance"
        options={kinds.map((one) => ({ value: one, label: FAULT_KINDS[one].words }))}
        onChoose={setKind}
      />
      <button
        type="button"
        className="button button-main justify-self-start"
        disabled={!canAct}
        onClick={() => {
          const level = difficultyOf(difficulty);
          onStart(
            chosen === undefined ? (level === undefined ? {} : { difficulty: level }) : { kind: chosen },
          );
        }}
      >
        Begin an exercise
      </button>
    </section>
  );
}

interface ExercisePanelProps {
  readonly exercise: View;
  readonly menu: siteWire.SiteMenu;
  readonly canAct: boolean;
  /** What the instrument shows, or nothing. */
  readonly onAct: (act: ExerciseAct) => Promise<string | undefined>;
}

function Measure({ menu, canAct, onAct }: Omit<ExercisePanelProps, 'exercise'>) {
  const [placeId, setPlaceId] = useState('');
  const [kind, setKind] = useState('');
  const [range, setRange] = useState('');
  const [shown, setShown] = useState('');
  const place = menu.places.find(({ id }) => id === placeId);
  const instruments = menu.instruments.filter((one) => place?.takes.includes(one.kind) === true);
  const instrument = instruments.find((one) => one.kind === kind) ?? instruments[0];
  const chosenRange = instrument?.ranges.find((one) => String(one) === range) ?? instrument?.ranges.at(-1);
  const measure = (): void => {
    if (instrument === undefined || chosenRange === undefined) return;
    void onAct({ act: 'measure', placeId, instrument: instrument.kind, range: chosenRange }).then((text) =>
      setShown(text ?? ''),
    );
  };
  return (
    <>
      <label className="block">
        <span className="block text-[13px] text-quiet">Place</span>
        <select
          className="input"
          disabled={!canAct}
          value={placeId}
          onChange={({ target }) => {
            setPlaceId(target.value);
            setShown('');
          }}
        >
          <option value="">choose</option>
          {menu.places.map(({ id, words, isBare }) => (
            <option key={id} value={id}>
              {words}
              {isBare ? ' (bare terminals)' : ''}
            </option>
          ))}
        </select>
      </label>
      <div className="grid grid-cols-2 gap-2">
        <label className="block">
          <span className="block text-[13px] text-quiet">Instrument</span>
          <select
            className="input"
            disabled={!canAct || place === undefined}
            value={instrument?.kind ?? ''}
            onChange={({ target }) => {
              setKind(target.value);
              setRange('');
            }}
          >
            {instruments.map((one) => (
              <option key={one.kind} value={one.kind}>
                {one.words}
              </option>
            ))}
          </select>
        </label>
        <label className="block">
          <span className="block text-[13px] text-quiet">Range</span>
          <select
            className="input"
            disabled={!canAct || instrument === undefined}
            value={chosenRange === undefined ? '' : String(chosenRange)}
            onChange={({ target }) => setRange(target.value)}
          >
            {(instrument?.ranges ?? []).map((one) => (
              <option key={one} value={String(one)}>
                {instrument?.kind === 'display' ? 'as it shows' : `${one} ${instrument?.unit ?? ''}`}
              </option>
            ))}
          </select>
        </label>
      </div>
      <div className="flex flex-wrap items-center gap-2">
        <button
          type="button"
          className="button button-main"
          disabled={!canAct || place === undefined}
          onClick={measure}
        >
          <Ruler size={18} aria-hidden="true" /> Measure
        </button>
        <button
          type="button"
          className="button"
          disabled={!canAct}
          onClick={() => void onAct({ act: 'prove-tester' }).then(() => setShown('The tester is proven.'))}
        >
          <ShieldCheck size={18} aria-hidden="true" /> Prove the tester
        </button>
      </div>
      <output className="site-shown block min-h-12 p-2 text-[20px] font-semibold">{shown}</output>
    </>
  );
}

/** Measuring, the log of it, and the answer. */
export function ExercisePanel({ exercise, menu, canAct, onAct }: ExercisePanelProps) {
  const [choice, setChoice] = useState(NO_CHOICE);
  const { lines, result, provenDead } = exercise;
  const isOpen = canAct && result === undefined;
  return (
    <section className="sheet grid content-start gap-2 p-3" aria-label="Exercise">
      <h3 className="font-semibold">Exercise</h3>
      {result !== undefined && (
        <div
          role="status"
          className={`border-l-4 p-2 ${result.isFound ? 'border-within bg-within-wash' : 'border-over bg-over-wash'}`}
        >
          <p className="font-semibold">
            {result.verdict} Score: {result.score} of 100.
          </p>
          {result.why.map((sentence) => (
            <p key={sentence}>{sentence}</p>
          ))}
        </div>
      )}
      {result === undefined && (
        <>
          <Measure menu={menu} canAct={isOpen} onAct={onAct} />
          <div className="grid gap-2 border-t border-rule pt-2">
            <FaultSelects menu={menu} choice={choice} disabled={!isOpen} onChoose={setChoice} />
            <p className="border-l-4 border-tight bg-tight-wash p-2 text-[13px]">
              Naming a fault in the battery or its leads means going to its terminals: isolate, prove the
              tester, prove dead first.{' '}
              {provenDead === 0 ? 'Nothing is proven dead now.' : `Proven dead: ${provenDead}.`}
            </p>
            <div className="flex flex-wrap gap-2">
              <button
                type="button"
                className="button button-main"
                disabled={!isOpen || choice.kind === '' || choice.at === ''}
                onClick={() => {
                  if (choice.kind !== '')
                    void onAct({ act: 'answer', fault: { kind: choice.kind, at: choice.at } });
                }}
              >
                This is it: mend it
              </button>
              <button
                type="button"
                className="button"
                disabled={!isOpen}
                onClick={() => void onAct({ act: 'give-up' })}
              >
                Give up
              </button>
            </div>
          </div>
        </>
      )}
      {lines.length > 0 && (
        <ol className="grid gap-1 border-t border-rule pt-2" aria-label="What was done">
          {lines.map(({ atS, words, worth }, index) => (
            <li key={index} className="flex gap-2">
              <span className="text-quiet tabular-nums">{siteTime(atS)}</span>
              <span className="flex-1">
                {words}
                {WORTH_WORDS[worth] !== '' && (
                  <strong className={worth === 'dangerous' || worth === 'wrong' ? 'text-over' : ''}>
                    {' '}
                    ({WORTH_WORDS[worth]})
                  </strong>
                )}
              </span>
            </li>
          ))}
        </ol>
      )}
    </section>
  );
}
