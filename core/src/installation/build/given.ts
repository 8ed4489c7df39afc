import type { Design } from '../../design/schema.ts';
import type { CompiledGenerator, CompiledStack } from '../installation.ts';
import type { RouteLength } from '../place/routes.ts';
import type { Supply } from '../supply.ts';
import type { FindType } from './types.ts';

/** What every builder of the network is given. */
export interface Given {
  readonly design: Design;
  readonly supply: Supply;
  readonly stacks: readonly CompiledStack[];
  readonly generators: readonly CompiledGenerator[];
  readonly routes: readonly RouteLength[];
  readonly find: FindType;
}
