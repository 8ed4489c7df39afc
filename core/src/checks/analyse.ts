import type { EquipmentType } from '../catalogue/schema.ts';
import type { Design } from '../design/schema.ts';
import { compile } from '../installation/compile.ts';
import type { Installation } from '../installation/installation.ts';
import { openPlaces, takenByEach } from '../installation/openPlaces.ts';
import { withOpenPlaces } from './openPlaces.ts';
import type { RegisteredFinding } from './registry.ts';
import { runChecks } from './runChecks.ts';

/** A design with everything that follows from it. */
export interface Analysis {
  readonly design: Design;
  readonly installation: Installation;
  readonly findings: readonly RegisteredFinding[];
}

/** Compiles a design and runs every check in every mode. Pure: the same design gives the same answer anywhere. */
export function analyse(design: Design, catalogue: readonly EquipmentType[]): Analysis {
  const installation = compile(design, catalogue);
  return {
    design,
    installation,
    findings: withOpenPlaces(
      runChecks(installation),
      takenByEach(design).map(({ design: taken, isOnNewBoard }) => ({
        findings: runChecks(compile(taken, catalogue)),
        isOnNewBoard,
      })),
      openPlaces(installation),
    ),
  };
}
