export { expectSound } from './checkTable.ts';
export { deepFreeze } from './designs.ts';
