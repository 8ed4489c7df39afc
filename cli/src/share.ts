import { compile, type Design, describePlaces, SAMPLE_TYPES, shareBank, unitPowersW } from '@bastion/core';

/** What `bastion share` prints of one bank. */
export interface ShareReport {
  readonly stack: string;
  readonly loadW: number;
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

/**
 * Solves the first bank of a design whose modules share.
 *
 * @param loadW AC load on the backed-up lines in all, W; undefined: the continuous load of the design
 */
export function shareReport(design: Design, loadW: number | undefined): ShareOutcome {
  const installation = compile(design, SAMPLE_TYPES);
  const compiled = installation.stacks.find(({ bankCircuit }) => {
    const circuit = bankCircuit();
    return !circuit.known || typeof circuit.value !== 'string';
  });
  if (compiled === undefined) return { ok: false, message: 'No bank of this design has modules that share.' };
  const circuit = compiled.bankCircuit();
  const { type, board } = compiled;
  const { supply } = installation;
  const missing = [circuit, type, board, supply].flatMap((one) => (one.known ? [] : one.missing));
  if (!circuit.known || typeof circuit.value === 'string' || !type.known || !board.known || !supply.known)
    return { ok: false, message: `Not known yet: ${describePlaces(design, missing)}.` };
  const lines = board.value.continuous.knownPart;
  const nowW = lines.reduce((sum, line) => sum + line.re, 0);
  if (loadW === undefined && board.value.continuous.missing.length > 0)
    return {
      ok: false,
      message: `Not known yet: ${describePlaces(design, board.value.continuous.missing)}.`,
    };
  const wantedW = loadW ?? nowW;
  const scaled = lines.map(({ re }) => ({
    re: nowW > 0 ? (re * wantedW) / nowW : wantedW / lines.length,
    im: 0,
  }));
  const share = shareBank(circuit.value, unitPowersW(compiled, supply.value, type.value.efficiency, scaled));
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
      loadW: wantedW,
      modules: share.modules.map(({ module, currentA, share: part, lossW }) => ({
        id: module.id,
        currentA,
        share: part,
        lossW,
      })),
      bars: share.taps.map(({ unitId, voltageV }) => ({ inverter: unitId, voltageV })),
      worstShare: Math.max(...share.modules.map((one) => one.share)),
      iterations: share.iterations,
    },
  };
}
