export { analyse, type Analysis } from './analyse.ts';
export { SAMPLE_TYPES } from './catalogue/samples.ts';
export type {
  Arrangement,
  AutotransformerType,
  BatteryType,
  EquipmentKind,
  EquipmentType,
  GeneratorType,
  InverterType,
} from './catalogue/schema.ts';
export { arrangement as arrangementSchema } from './catalogue/schema.ts';
export { CHECKS, checkById } from './checks/registry.ts';
export type { Check, Family } from './checks/check.ts';
export {
  compareFindings,
  type Finding,
  type State,
  STATES,
  type Subject,
  type Working,
  type WorkingStep,
  type WorkingSymbol,
} from './checks/finding.ts';
export { checkReport, type CheckReport } from './checks/report.ts';
export { sentenceOf } from './checks/sentence.ts';
export { substitute } from './checks/substitute.ts';
export { DEFAULT_KEYS, type DefaultKey, DEFAULTS } from './codes/defaults.ts';
export { codeProfile, type CodeProfile, type Tabulated } from './codes/profile.ts';
export { START_CLASS_ROWS } from './codes/starts.ts';
export { autonomy, type Autonomy } from './compile/autonomy.ts';
export type { Board } from './compile/board.ts';
export type { Capability } from './compile/capability.ts';
export { compile, type CompiledStack, type Installation } from './compile/installation.ts';
export type { Mode, ModeKind } from './compile/modes.ts';
export {
  applyEdits,
  type Conflict,
  conflictsBetween,
  diff,
  type Edit,
  editSchema,
  invertEdits,
} from './design/edits.ts';
export type { Known } from './design/known.ts';
export { MIGRATIONS } from './design/migrate.ts';
export { formatPath, type Path, type Problem, type Result } from './design/problem.ts';
export type { Line } from './design/quantities.ts';
export { emptyDesign, MAX_DOCUMENT_LENGTH, readDesign, readDesignText } from './design/read.ts';
export { SUPPLY_LINES } from './design/references.ts';
export {
  type Bank,
  type Circuit,
  type Design,
  designSchema,
  FORMAT,
  type Generator,
  type Importance,
  importance as importanceSchema,
  type Item,
  type Partition,
  type PvArray,
  type Site,
  type Stack,
  type StartClass,
  startClass as startClassSchema,
  type SupplyKind,
  type Unit,
} from './design/schema.ts';
export { type Complex, magnitude } from './network/complex.ts';
export { generateProcedure, procedureFor } from './procedure/generate.ts';
export { judgeReading, judgeStep, type Verdict } from './procedure/judge.ts';
export {
  type Procedure,
  procedureSchema,
  type ProcedureStep,
  type ReadingSpec,
  SECTIONS,
} from './procedure/schema.ts';
export * as wire from './wire/wire.ts';
export { describePlace, describePlaces, fieldLabel } from './words/places.ts';
export { counted, formatNumber, formatQuantity } from './words/quantity.ts';
export { copyUsedTypes } from './design/usedTypes.ts';
export { lineVoltages } from './network/phasors.ts';
export { allowedTimeS } from './network/overload.ts';
export { chooseSupply } from './design/chooseSupply.ts';
