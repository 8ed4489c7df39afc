export { analyse, type Analysis } from './checks/analyse.ts';
export { advise, ADVICE_KINDS, type AskedAdvice } from './advise/advise.ts';
export { type BalanceProblem, type BalanceResult, type Progress } from './advise/balance/problem.ts';
export { balanceSearch } from './advise/balance/search.ts';
export { figuresOf } from './advise/figures.ts';
export { importanceOf } from './figures/loads/importance.ts';
export type { Advice, AdviceKind, Figures, Proposal, ProposalPart } from './advise/proposal.ts';
export { type CompareGroup, type CompareRow, compareVariants } from './advise/compare.ts';
export { type SharingFix, sharingFixes } from './advise/sharing.ts';
export { adviseScope, type Scope, scopeOf } from './advise/scope.ts';
export { BOARD_NAMES, boardCalled, usualBoard } from './design/boards.ts';
export { openFirstValues, valueAt, withoutTouched } from './design/firstValues.ts';
export { withoutLost } from './design/withoutLost.ts';
export { speaksForSet } from './installation/speaksForSet.ts';
export { libraryItem } from './design/itemWords.ts';
export { withItemDefaults } from './design/itemDefaults.ts';
export { type Region, REGIONS } from './design/regions.ts';
export { startDesign } from './advise/setUp/startDesign.ts';
export { fitOf, lineOfUnit } from './advise/setUp/arrangements.ts';
export { setUp } from './advise/setUp/setUp.ts';
export type { SetUpChoice } from './advise/setUp/kit.ts';
export { ITEM_LIBRARY, type LibraryGroup } from './design/itemLibrary.ts';
export { freeTypeId, type MergedType, mergeTypes } from './design/mergeTypes.ts';
export { type FindingChange, type NewerType, newerTypes, tryType } from './advise/newerTypes.ts';
export { typeQuestions } from './catalogue/questions.ts';
export {
  entriesOf,
  entryOf,
  readSheetEntries,
  type SheetEntries,
  type SheetField,
  type SheetGroup,
  type TypeChange,
  typeChanges,
} from './catalogue/sheet.ts';
export { KIND_WORDS, SHEETS } from './catalogue/sheets.ts';
export { equipmentType as equipmentTypeSchema } from './catalogue/schema.ts';
export { readTypeFile, readTypeRows, typeFile, typeRows } from './formats/typeRows.ts';
export { usedTypeIds } from './design/usedTypes.ts';
export { SAMPLE_TYPES } from './catalogue/samples.ts';
export type { Arrangement, InverterType } from './catalogue/inverterType.ts';
export type { AutotransformerType, GeneratorType } from './catalogue/sourceTypes.ts';
export type { BatteryType } from './catalogue/batteryType.ts';
export type { EquipmentKind, EquipmentType } from './catalogue/schema.ts';
export { arrangement as arrangementSchema, isUnitPerLine } from './catalogue/inverterType.ts';
export { type CheckId, CHECKS, checkById, type RegisteredFinding as Finding } from './checks/registry.ts';
export { leadsToField, statedAt } from './checks/statedAt.ts';
export { workingOf } from './checks/workingOf.ts';
export type { Check, Family } from './checks/check.ts';
export {
  compareFindings,
  concerns,
  isSameSubject,
  type Ref,
  type State,
  STATES,
  type Subject,
  subjectKey,
  type Working,
  type WorkingStep,
  type WorkingSymbol,
} from './checks/finding.ts';
export { checkReport, type CheckReport } from './advise/report.ts';
export { acceptanceOf, figuresToAccept } from './checks/accepted.ts';
export { analysisCauses, type Cause } from './checks/causes.ts';
export type { Severity } from './checks/severity.ts';
export { verdictOf } from './checks/verdict.ts';
export { SKIPPED, skipOf } from './procedure/passage.ts';
export { partOf, type Retest, retestAfter } from './procedure/retest.ts';
export { bandFigures, edgeFigure, readingFigure } from './procedure/bandWords.ts';
export {
  alarmOf,
  blockedBy,
  type Blocked,
  failedReadings,
  hasReason,
  latestOf,
  verdictOfStep,
} from './procedure/passage.ts';
export {
  isResponsibility,
  isDesignWork,
  isFieldNote,
  isNoteStamp,
  isOthers,
  noteStamps,
  othersNote,
} from './design/fieldNotes.ts';
export { acceptance as acceptanceSchema, type Acceptance } from './design/acceptance.ts';
export { decidesOn, type Mend, mendsOf } from './advise/mends/mendsOf.ts';
export { sentenceOf } from './checks/sentence.ts';
export { substitute } from './checks/substitute.ts';
export { DEFAULT_KEYS, type DefaultKey, DEFAULTS } from './codes/defaults.ts';
export { codeProfile, type CodeProfileName, type CodeProfile, type Tabulated } from './codes/profile.ts';
export { START_CLASS_ROWS } from './codes/starts.ts';
export { CODE_LETTERS } from './codes/codeLetters.ts';
export { autonomy, type Autonomy } from './figures/bank/autonomy.ts';
export { type Board, LOAD_CASE_WORDS } from './figures/loads/board.ts';
export { circuitPower, runsInHour } from './figures/loads/circuitPower.ts';
export { type DayProfile, dayProfile, profileDurationW } from './figures/loads/dayProfile.ts';
export { factorFinder, startSource, type StartSource, stepsOfStart } from './figures/loads/loads.ts';
export { coldPickup, seeLine, staggeredPickup, type SurgeStep } from './figures/loads/surges.ts';
export { dischargeLimitA } from './figures/bank/bank.ts';
export { type BankAtLoad, bankAtLoad, type BankLoad } from './figures/bank/bankAtLoad.ts';
export { bankCount, isOwnBank } from './installation/ownBank.ts';
export { type BankCircuit, bankCircuit, type CircuitModule, restingV } from './figures/bank/bankCircuit.ts';
export { type BankShare, type ModuleShare, shareBank } from './figures/bank/bankShare.ts';
export { type AcGroup, type AcPart, acShare } from './figures/capability/acShare.ts';
export { type BankLimit, type BankLimitKey } from './figures/bank/bankLimits.ts';
export { type Drift, driftOf, type DriftPoint, SETTLED_WITHIN } from './figures/bank/drift.ts';
export { generatorLines } from './installation/generatorLines.ts';
export { type LoadStage, loadStages } from './figures/loads/loadStages.ts';
export { parallelBus } from './installation/parallelBus.ts';
export { seriesOrder, type SeriesLink, seriesWindow } from './installation/seriesStack.ts';
export { type StringVolts, stringVolts } from './figures/pv/strings.ts';
export { capabilityWithout } from './figures/capability/capability.ts';
export { unitLines } from './installation/unitLines.ts';
export { type BankLimitColumn, bankLimitTable } from './checks/support/bankLimitTable.ts';
export { holdV, type JoinStep, joinSteps } from './figures/bank/joining.ts';
export { type DeviceChoice, takeTypes, typesForDevices, untypedCount } from './advise/typesForDevices.ts';
export { type BusPlan, planBus, planComms, plannedAddress } from './advise/wiring.ts';
export { type FuelUse, fuelUse } from './figures/generator/fuel.ts';
export { leadOhm } from './codes/leads.ts';
export { leadSizes, leadSizeWords, readLeadSize } from './codes/leadSizes.ts';
export type { Capability } from './figures/capability/capability.ts';
export { compile } from './installation/compile.ts';
export type { CompiledStack, Installation } from './installation/installation.ts';
export { statedOf } from './installation/stated.ts';
export { buildingBoard, generatorBoard, islandBoard, onGridBoard } from './figures/loads/boards.ts';
export { bankCircuitOf, bankOfSet, bankTypesOf } from './figures/bank/ofSet.ts';
export { generatorRating } from './figures/generator/rating.ts';
export type { ModeKind } from './installation/modeKinds.ts';
export { type Mode, modesOf } from './modes/modes.ts';
export { applyEdits } from './design/applyEdits.ts';
export { type Conflict, conflictsBetween } from './design/conflicts.ts';
export { diff, type Edit, editSchema, invertEdits, sameJson } from './design/edits.ts';
export { type Known, uniquePaths } from './values/known.ts';
export { MIGRATIONS } from './design/migrate.ts';
export { formatPath, type Path, type Problem, problemsFrom, type Result } from './values/problem.ts';
export type { Line } from './values/quantities.ts';
export {
  emptyDesign,
  MAX_DOCUMENT_LENGTH,
  readDesign,
  readDesignText,
  rereadDesign,
  rereadTouched,
} from './design/read.ts';
export { SUPPLY_LINES } from './design/references.ts';
export {
  type Bank,
  type Circuit,
  type Module,
  type Design,
  designSchema,
  FORMAT,
  type Generator,
  type ClampReading,
  type Importance,
  importance as importanceSchema,
  type Item,
  type Partition,
  type PartitionKind,
  partitionKind as partitionKindSchema,
  type PvArray,
  type SiteController,
  type Site,
  type Stack,
  type StartCase,
  type StartClass,
  startClass as startClassSchema,
  type SupplyKind,
  type Unit,
} from './design/schema.ts';
export {
  type BankComms,
  type Conductor,
  type Joining,
  joining as joiningSchema,
} from './design/stackSchema.ts';
export { type Complex, magnitude } from './network/complex.ts';
export { generateProcedure, procedureFor } from './procedure/generate.ts';
export { belongsOf, belongsTo } from './installation/belongs.ts';
export { judgeReading, judgeStep, type Verdict } from './procedure/judge.ts';
export {
  type Procedure,
  procedureSchema,
  type ProcedureStep,
  type ReadingSpec,
  SECTIONS,
} from './procedure/schema.ts';
export * as wire from './wire/wire.ts';
export * as peopleWire from './wire/people.ts';
export * as siteWire from './wire/site.ts';
export * as liveWire from './wire/live.ts';
export { POWERS, type Powers, role as roleSchema, type Role, ROLE_WORDS } from './wire/roles.ts';
export { ARRANGEMENT_WORDS } from './catalogue/arrangementWords.ts';
export { describePlace, describePlaces, fieldLabel } from './words/places.ts';
export { counted, formatNumber, formatQuantity } from './words/quantity.ts';
export { copyUsedTypes } from './design/usedTypes.ts';
export { lineVoltages } from './network/phasors.ts';
export {
  allowedMultiple,
  allowedTimeS,
  levelTimes,
  type LevelTime,
  type OverloadPoint,
  worstLevel,
} from './network/overload.ts';
export type { Mounted, Obstacle, ObstacleKind, Place, Route } from './design/place.ts';
export { type MeterSummary, type Season, SEASONS } from './design/meters.ts';
export type { DeliveryTick } from './design/delivery.ts';
export { chooseSupply } from './design/chooseSupply.ts';

export { readEspi } from './formats/espi.ts';
export {
  type BadRow,
  type EnergyUnit,
  type IntervalColumns,
  type IntervalResult,
  type MeterFigures,
  readIntervalRows,
  type ReadIntervals,
  summariseIntervals,
} from './formats/intervals.ts';
export { guessHeadingRow, guessMapping, LOAD_FIELDS, type LoadField } from './formats/loadFields.ts';
export type { LoadChange } from './formats/importing.ts';
export { readLines } from './formats/lineNames.ts';
export {
  importLoadRows,
  mappingWarnings,
  type LoadImport,
  type LoadMapping,
  loadRows,
} from './formats/loadRows.ts';
export { type DateOrder, guessDateOrder } from './formats/timestamps.ts';
export type { ZoneOffsetMin } from './formats/zone.ts';
export type { RouteLength } from './installation/place/routes.ts';
export {
  drillingHoles,
  type Hole,
  mountedLabel,
  obstacleLabel,
  type OnWall,
  type Rect,
  zoneOf,
} from './installation/place/wall.ts';
export { mostFrontM } from './installation/place/front.ts';
export { type PartLine, partsOf } from './schedules/parts.ts';
export { type DeliveryGroup, type DeliveryLine, deliveryLines } from './installation/delivery.ts';

export type { CommsLink, Network, NetworkProblem, Part, PartKind } from './installation/network.ts';
export {
  bondPosition,
  energisedPorts,
  type ModeFacts,
  pathToBoard,
  pathToBond,
  walkOf,
} from './modes/walk.ts';
export { type Diagram, type DiagramEdge, type DiagramNode, diagramOf } from './diagram/graph.ts';
export { drawDiagram, SOURCE_WORDS } from './diagram/draw.ts';
export { NUDGE_PX, nudged } from './diagram/nudge.ts';
export {
  type Layout,
  type LayoutAnswer,
  layoutQuestion,
  type LayoutQuestion,
  readLayout,
} from './diagram/layout.ts';
export {
  MATRIX_COLUMNS,
  type MatrixCell,
  type MatrixColumn,
  modeMatrix,
  type MatrixRow,
} from './diagram/matrix.ts';
export type { Drawing, Ink, Shape } from './diagram/shapes.ts';
export { drawingPage } from './diagram/page.ts';
export { onSheet, type TitleBlock } from './diagram/sheet.ts';
export { conductorColour } from './codes/conductorColour.ts';
export { drawPort, type PortEnd } from './diagram/portDrawing.ts';
export { svgOf, svgPath } from './formats/svg.ts';
export { type BondingMend, bondingMends } from './advise/bonding.ts';
export { pageOf, type StageKey, stageOfFinding, STAGES } from './wire/stages.ts';
export { type Remains, remainsWithout } from './figures/capability/remains.ts';
export { wholeNetwork } from './installation/circuitLines.ts';
export { circuitVa, expectedVa } from './figures/loads/circuitVa.ts';
export { MOST_DEPTH, sizeProblem } from './values/jsonSize.ts';
export { replay, type StoredEdits } from './design/replay.ts';
export {
  type CircuitProtection,
  type FaultSource,
  faultProtection,
  filterLeakageMa,
  LEAKAGE_SHARE,
  type Trip,
} from './figures/protection/faultProtection.ts';
export { scheduleOf, scheduleSheet, cellText } from './schedules/scheduleOf.ts';
export {
  type Cell as ScheduleCell,
  type Column as ScheduleColumn,
  type Row as ScheduleRow,
  type RowState,
  type Schedule,
  SCHEDULE_KINDS,
  type ScheduleKind,
} from './schedules/table.ts';
export { conductorSchedule, laidWords, smallestWords } from './schedules/conductors.ts';
export { TEST_TITLES } from './schedules/conductorVerdict.ts';
export { type VanAnswer, vanAnswers } from './schedules/van.ts';
export type { CableLine } from './figures/wiring/cableLine.ts';
export { cableLines } from './figures/wiring/cableLines.ts';
export { type SizedLine, sizeLine } from './sizing/sizeLine.ts';
export { judgeSize } from './sizing/judgeSize.ts';
export type { SizeAnswer, SizeTest } from './sizing/question.ts';
export { INSULATIONS, METHODS } from './codes/cableKinds.ts';
export { insulationsOf } from './codes/ampacity.ts';
export { tableValueLabel, type TableValue } from './codes/tableValues.ts';
export type { LoggedSearch } from './design/faultSearches.ts';
export type { KeptRehearsal } from './design/rehearsals.ts';
export { motorStart, type MotorStart, type Starter, startersOf } from './rehearse/motorStart.ts';
export { plantKey } from './rehearse/plantKey.ts';
export { askedWords, bandRows, foundWords, keptBands } from './rehearse/keptWords.ts';
export { tableValue as tableValueSchema } from './design/tableValue.ts';
export type {
  Cable,
  Laying,
  LinkAsWired,
  Passage,
  ReadTerminal,
  Remnant,
  Splice,
  Wiring,
} from './design/wiringSchema.ts';
export {
  askProblem,
  DEFAULT_NIGHTS,
  nightsRun,
  outageRun,
  plantsOf,
  type Rehearsed,
  type RehearsalAsk,
} from './rehearse/rehearse.ts';
export { type BankApart, banksApart } from './rehearse/banksApart.ts';
export { runApart } from './rehearse/runApart.ts';
export { BATTERY_IN_START, batteryInStart } from './rehearse/startBattery.ts';
export { seasonWords } from './rehearse/seasonWords.ts';
export type { Band } from './rehearse/bands.ts';
export { dayLevels, rehearsedDurationW } from './figures/loads/rehearsedLoad.ts';
export { lengthIn, type LengthUnit, lengthUnitOf, metresIn } from './words/length.ts';
export { inRegion } from './schedules/inRegion.ts';
export { clockWords } from './words/clock.ts';
export { MONTH_NAMES } from './words/months.ts';
export { clockOf, eventTeller, type OutageEvent } from './rehearse/events.ts';
export { type OutageResult, runOutage } from './rehearse/outage.ts';
export type { OutageRun } from './rehearse/outageRun.ts';
export { type Minute, type Watch } from './rehearse/minute.ts';
export {
  firstNights,
  type NightColumns,
  nightColumns,
  type NightsRun,
  nightRun,
  type NightGlance,
  type NightsSummary,
  placeNights,
  playNights,
  summarise,
} from './rehearse/nights.ts';
export { choiceCount, type Driver, driversOf, playChoice, rankDrivers } from './rehearse/drivers.ts';
export { type OutagePattern, PATTERNS, RURAL, typedPattern } from './rehearse/patterns.ts';
export type { Plant } from './rehearse/plant.ts';
export { type LinePickup, type Transfer, transferOf } from './rehearse/transfer.ts';
export type { Measurement } from './procedure/elimination.ts';
export { type Answer, type FaultSearch, judgeMeasured, searchFault } from './procedure/faultFinder.ts';
export { type Symptom, SYMPTOMS } from './procedure/plainSuspects.ts';
export { transferTime } from './figures/capability/transferTime.ts';
export { type Drop, loadsDroppedBy } from './rehearse/drops.ts';
export { transferWave } from './rehearse/transferWave.ts';
export { type CaptureFile, readCapture } from './formats/capture.ts';
export { captureInOneFile, writeComtradeFile } from './formats/comtradeWrite.ts';
export { durationS, type WaveRecord } from './waveform/record.ts';
export { columnsOf, type Pyramid, pyramidOf } from './waveform/pyramid.ts';
export {
  type ChannelFigures,
  isInBand,
  type WaveExpectation,
  type WaveFigure,
  waveFigures,
  type WaveFigures,
} from './waveform/figures.ts';
export { landingId } from './schedules/terminations.ts';
export { linkTickId } from './schedules/comms.ts';
export { settingId } from './schedules/settings.ts';
export { asBuiltEdits, asBuiltId } from './schedules/asBuilt.ts';
export { IDLE_V, type LinkFigure, linkFigures } from './figures/comms/linkFigures.ts';
export { boardPartId } from './installation/build/boards.ts';
export { labelSheet } from './formats/labelSheet.ts';
export { sheetLabels } from './schedules/labels.ts';
export { cutPlan } from './sizing/cutting.ts';
export { sitePlan } from './site/sitePlan.ts';
export type { SitePlan } from './site/siteTypes.ts';
export { newSite, type SiteState } from './site/siteState.ts';
export { commandSite, type SiteCommand } from './site/siteCommands.ts';
export {
  FAULT_KINDS,
  FORGETTABLE,
  type FaultKind,
  faultId,
  type SiteFault,
  type SiteSetting,
} from './site/siteFaults.ts';
export { modeOf, runSite, STEP_S } from './site/siteStep.ts';
export { siteMenu, siteView } from './site/siteView.ts';
export { siteRegisters, siteValues } from './site/siteValues.ts';
export { commandsOfWrite } from './site/registerWrite.ts';
export {
  MAP_NUMBER,
  type MapRow,
  REGISTER_BLOCKS,
  type RegisterType,
  registersOf,
  rowsOfBlock,
  rowsOfSite,
  siteRows,
} from './site/registerTable.ts';
export { type ReadSpan, spansOf, valuesOfSpan } from './site/registerValues.ts';
export { liveFigure, type LiveSource, liveSource } from './site/liveReadings.ts';
export { messagesOfBits } from './site/siteMessages.ts';
export { readRegisterMap } from './site/registerMapFile.ts';
export {
  actInExercise,
  afterSwitching,
  type Exercise,
  type ExerciseAct,
  type ExerciseAsk,
  openExercise,
} from './site/apprentice.ts';
export { remember } from './values/remember.ts';
