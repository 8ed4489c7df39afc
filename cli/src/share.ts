import { bankAtLoad, bankCircuitOf, compile, type Design, describePlaces, SAMPLE_TYPES } from '@bastion/core';

/** What `bastion share` prints of one bank. */
export interface ShareReport {
  readonly stack: string;
  readonly loadW: number;
  /** Where each inverter has a bank of its own: the one whose bank is nearest to its limit, which is the one shown. */
  readonly bankOf?: string;
  readonly modules: readonly {
    readonly id: string;
    readonly currentA: number;
    readonly share: number;
    readonly lossW: number;
  }[];
  readonly bars: readonly { readonly inverter: string; readonly voltageV: number }[];
  readonly worstShare: number;
  readonly iterations: number;
}

export type ShareOutcome =
  { readonly ok: true; readonly report: ShareReport } | { readonly ok: false; readonly message: string };

const NOTHING_SHARES: ShareOutcome = {
  ok: false,
  message: 'No bank of this design has modules that share.',
};

/**
 * Solves the first bank of a design whose modules share.
 *
 * @param loadW AC load on the backed-up lines in all, W; undefined: the continuous load of the design
 */
export function shareReport(design: Design, loadW: number | undefined): ShareOutcome {
  const installation = compile(design, SAMPLE_TYPES);
  const compiled = installation.stacks.find((one) => {
    const circuit = bankCircuitOf(one);
    return !circuit.known || typeof circuit.value !== 'string';
  });
  if (compiled === undefined) return NOTHING_SHARES;
  const found = bankAtLoad(
    compiled,
    loadW === undefined ? { kind: 'continuous' } : { kind: 'typed', watts: loadW },
  );
  if (!found.known) return { ok: false, message: `Not known yet: ${describePlaces(design, found.missing)}.` };
  if (found.value === 'none') return NOTHING_SHARES;
  const { share, ofUnitId } = found.value;
  if (share.kind === 'too-much')
    return {
      ok: false,
      message: `The bank cannot give this: ${Math.round(share.deliverableW)} W of direct current is the most it can.`,
    };
  if (share.kind === 'no-answer')
    return { ok: false, message: `The network has no answer: ${share.problem.kind}.` };
  return {
    ok: true,
    report: {
      stack: compiled.stack.id,
      loadW: found.value.loadW,
      ...(ofUnitId === undefined ? {} : { bankOf: ofUnitId }),
      modules: share.modules.map(({ module, currentA, share: part, lossW }) => ({
        id: module.id,
        currentA,
        share: part,
        lossW,
      })),
      bars: share.taps
        .filter(({ unitId }) => ofUnitId === undefined || unitId === ofUnitId)
        .map(({ unitId, voltageV }) => ({ inverter: unitId, voltageV })),
      worstShare: Math.max(...share.modules.map((one) => one.share)),
      iterations: share.iterations,
    },
  };
}
