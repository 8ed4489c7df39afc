import type { EquipmentType } from './catalogue/schema.ts';
import { runChecks } from './checks/runChecks.ts';
import type { Finding } from './checks/finding.ts';
import { compile, type Installation } from './compile/installation.ts';
import type { Design } from './design/schema.ts';

/** A design with everything that follows from it. */
export interface Analysis {
  readonly installation: Installation;
  readonly findings: readonly Finding[];
}

/** Compiles a design and runs every check in every mode. Pure: the same design gives the same answer anywhere. */
export function analyse(design: Design, catalogue: readonly EquipmentType[]): Analysis {
  const installation = compile(design, catalogue);
  return { installation, findings: runChecks(installation) };
}
