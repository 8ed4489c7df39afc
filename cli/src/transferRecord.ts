import { writeFileSync } from 'node:fs';
import {
  compile,
  type Design,
  SAMPLE_TYPES,
  transferOf,
  transferWave,
  writeComtradeFile,
} from '@bastion/core';

/** A record is dated by its day; one that was rehearsed has none, and carries the first day there is. */
const NO_DAY = '2000-01-01';

/** Writes the rehearsed transfer of the first set; answers with what is in the way, where something is. */
export function writeTransfer(design: Design, out: string): string | undefined {
  if (!/\.cff$/iu.test(out)) return `--wave ${out}: a file that ends in .cff is needed`;
  const installation = compile(design, SAMPLE_TYPES);
  const [compiled] = installation.stacks;
  const transfer = compiled && transferOf(compiled);
  const { site } = design;
  if (transfer?.known !== true || site.lineVoltageV === undefined || site.frequencyHz === undefined)
    return '--wave: the transfer is not known yet; without --wave what is missing is named';
  const record = transferWave(transfer.value, {
    title: `${design.name}, rehearsed`,
    lineVoltageV: site.lineVoltageV,
    frequencyHz: site.frequencyHz,
  });
  try {
    writeFileSync(out, writeComtradeFile(record, NO_DAY));
  } catch (error) {
    return `${out}: ${error instanceof Error ? error.message : 'cannot be written'}`;
  }
  return undefined;
}
