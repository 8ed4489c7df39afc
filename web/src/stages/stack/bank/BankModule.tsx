import { dischargeLimitA, formatQuantity, type ModuleShare } from '@bastion/core';
import { type BankLayout, MODULE_BOTTOM, MODULE_HIGH, MODULE_TOP } from './bankLayout.ts';

/** What a module is judged by in the picture. */
export interface ShareLimits {
  /** Departures from the mean that are tight and over. */
  readonly tight: number;
  readonly over: number;
  /** How long the load lasts. */
  readonly durationS: number;
}

type State = 'within' | 'tight' | 'over';

const INK: Record<State, string> = { within: 'var(--within)', tight: 'var(--tight)', over: 'var(--over)' };
const MARK: Record<State, string> = { within: '', tight: ' !', over: ' ✕' };
/** The bar of a module is full at this share of the mean. */
const FULL = 1.5;
const INSIDE = MODULE_HIGH - 4;

/** Departure from the mean as people say it: "+4.2 %". */
const departureWords = (share: number): string =>
  `${share >= 1 ? '+' : '−'}${Math.abs(100 * (share - 1)).toFixed(1)} %`;

function stateOf({ share, currentA, module }: ModuleShare, { tight, over, durationS }: ShareLimits): State {
  const off = share === 0 ? 0 : Math.abs(share - 1);
  if (off > over || currentA > dischargeLimitA(module.type, durationS)) return 'over';
  return off > tight ? 'tight' : 'within';
}

function wordsOf(one: ModuleShare, state: State, limits: ShareLimits): string {
  const { module, currentA, share, lossW } = one;
  const limitA = dischargeLimitA(module.type, limits.durationS);
  const past = currentA > limitA ? `, past its own ${formatQuantity(limitA, 'A')}` : '';
  const departure = share === 0 ? 'nothing is drawn' : `${departureWords(share)} from the mean`;
  return `Module ${module.number}: ${formatQuantity(currentA, 'A')}${past}, ${departure}, ${formatQuantity(lossW, 'W')} of heat, ${state}`;
}

/** Figures of a module beside its bar; in a narrow one they stand upright. */
function Figures({
  x,
  layout,
  one,
  state,
}: {
  x: number;
  layout: BankLayout;
  one: ModuleShare;
  state: State;
}) {
  const { module, currentA, share } = one;
  const isWide = layout.kind === 'wide';
  const ink = state === 'within' ? 'var(--quiet)' : INK[state];
  const strong = state === 'over' ? INK[state] : 'var(--ink)';
  if (layout.kind === 'narrow')
    return (
      <>
        <text
          x={x + layout.moduleWide / 2}
          y={MODULE_TOP + 13}
          textAnchor="middle"
          fontSize={10.5}
          fill={ink}
        >
          {module.number}
        </text>
        <text
          transform={`translate(${x + layout.moduleWide - 5} ${MODULE_BOTTOM - 6}) rotate(-90)`}
          fontSize={12}
          fontWeight={650}
          fill={strong}
        >
          {currentA.toFixed(1)} A{MARK[state]}
        </text>
      </>
    );
  const left = x + (isWide ? 24 : 13);
  return (
    <>
      <text x={left} y={MODULE_TOP + 20} fontSize={12} fill="var(--quiet)">
        {module.number}
        {MARK[state]}
      </text>
      <text x={left} y={MODULE_TOP + 43} fontSize={isWide ? 15 : 12.5} fontWeight={650} fill={strong}>
        {currentA.toFixed(1)} A
      </text>
      <text x={left} y={MODULE_TOP + 62} fontSize={isWide ? 11.5 : 10.5} fill={ink}>
        {share === 0 ? '' : departureWords(share)}
      </text>
    </>
  );
}

interface BankModuleProps {
  readonly index: number;
  readonly layout: BankLayout;
  readonly one: ModuleShare;
  readonly limits: ShareLimits;
  readonly onChoose: (moduleId: string) => void;
}

/** A module with its current: a bar against the mean of the bank, the figures, and its state by shape as well as ink. */
export function BankModule({ index, layout, one, limits, onChoose }: BankModuleProps) {
  const state = stateOf(one, limits);
  const words = wordsOf(one, state, limits);
  const x = layout.centre(index) - layout.moduleWide / 2;
  const filled = Math.min(1, Math.max(0, one.share) / FULL) * INSIDE;
  const mean = MODULE_BOTTOM - 2 - INSIDE / FULL;
  const barWide = layout.kind === 'wide' ? 12 : 7;
  return (
    <g
      role="button"
      tabIndex={0}
      aria-label={words}
      className="picture-part"
      onClick={() => onChoose(one.module.id)}
      onKeyDown={(event) => {
        if (event.key !== 'Enter' && event.key !== ' ') return;
        event.preventDefault();
        onChoose(one.module.id);
      }}
    >
      <title>{words}</title>
      <rect x={x} y={MODULE_TOP} width={layout.moduleWide} height={MODULE_HIGH} rx={2} fill="var(--sheet)" />
      <rect x={x + 2} y={MODULE_BOTTOM - 2 - filled} width={barWide} height={filled} fill={INK[state]} />
      <line x1={x} x2={x + barWide + 5} y1={mean} y2={mean} stroke="var(--ink)" strokeWidth={2} />
      <Figures x={x} layout={layout} one={one} state={state} />
      <rect
        x={x}
        y={MODULE_TOP}
        width={layout.moduleWide}
        height={MODULE_HIGH}
        rx={2}
        fill="none"
        stroke={state === 'within' ? 'var(--ink)' : INK[state]}
        strokeWidth={state === 'over' ? 2.6 : 1.4}
        strokeDasharray={state === 'tight' ? '6 3' : undefined}
      />
    </g>
  );
}
