import { ITEM_LIBRARY } from './itemLibrary.ts';
import type { Item } from './schema.ts';

/** How people call the things of the library, for a name that is not its own; the first that a name holds counts. */
const WORDS: readonly (readonly [name: string, pattern: RegExp])[] = [
  ['Walk-in cooler compressor', /walk.?in/],
  ['Vaccine refrigerator', /vaccine/],
  ['Upright freezer', /freezer/],
  ['Refrigerator', /fridge|refrigerator/],
  ['Dishwasher', /dish ?washer/],
  ['Washing machine', /washing machine|\bwasher\b/],
  ['Tumble dryer, heated', /tumble|clothes dryer|\bdryer\b/],
  ['Microwave oven', /microwave/],
  ['Induction hob, two rings', /\bhob\b|cooktop|induction/],
  ['Oven', /\boven\b/],
  ['Kettle', /kettle/],
  ['Extractor fan', /extractor|range hood|exhaust fan/],
  ['Television', /\btv\b|television/],
  ['Router and modem', /router|modem|wi.?fi|internet/],
  ['Network cabinet', /network cabinet|\brack\b|server/],
  ['Camera recorder with cameras', /camera|cctv/],
  ['Door entry and intercom', /intercom|door entry|door bell/],
  ['Alarm and door panel', /alarm/],
  ['Emergency lighting charger', /emergency light/],
  ['Outdoor lighting', /(outdoor|outside|garden|yard) light/],
  ['Filament spotlights', /halogen|filament|incandescent/],
  ['Examination light', /examination light/],
  ['LED lighting, one room', /\blights?\b|lighting|\blamps?\b|\bled\b/],
  ['Desk with computer and screen', /\bdesk\b|computer|\bpc\b|workstation|office/],
  ['Laser printer', /printer/],
  ['Till and card terminal', /\btill\b|card terminal|cash desk/],
  ['Electric vehicle charger, one line', /\bev\b|vehicle charger|car charger|wall ?box/],
  ['Garage door drive', /garage door/],
  ['Roller door', /roller (door|shutter)/],
  ['Stair lift', /stair ?lift/],
  ['Vacuum cleaner', /vacuum/],
  ['Hair dryer', /hair/],
  ['Iron', /\biron\b/],
  ['Coffee machine', /coffee|espresso/],
  ['Toaster', /toaster/],
  [
    'Boiler controls and circulation pump',
    /(gas|oil) boiler|boiler (controls?|pump)|circulation( pump)?|heating pump|furnace/,
  ],
  ['Heat pump with variable-speed drive', /heat pump/],
  ['Air conditioner, fixed speed', /air.?con|\ba\/?c\b/],
  ['Ventilation unit with heat recovery', /ventilation|\bmvhr\b|\bhrv\b/],
  ['Treatment plant blower', /treatment plant|septic/],
  ['Pool pump', /pool/],
  ['Sump pump', /sump/],
  ['Pressure pump', /pressure pump|booster pump|water pump/],
  ['Borehole pump, single-phase', /bore ?hole|well pump/],
  ['Water heater, small', /water heater|immersion|\bboiler, water/],
  ['Panel heater', /heater|radiator/],
  ['Welding set', /weld/],
  ['Bench grinder', /grinder/],
  ['Hand power tool', /power tool|hand tool|\bdrill\b/],
  ['Air compressor, single-phase', /compressor/],
  ['Autoclave, table top', /autoclave|steriliser/],
  ['Centrifuge', /centrifuge/],
  ['Oxygen concentrator', /oxygen/],
  ['X-ray generator, standby', /x.?ray/],
  ['Analyser with computer', /analyser|analyzer/],
  ['Socket outlets, general', /sockets?|outlets?|receptacles?/],
];

const byName = new Map(
  ITEM_LIBRARY.flatMap(({ items }) => items).map((item) => [item.name.toLowerCase(), item]),
);

export interface Meant {
  readonly item: Omit<Item, 'id'>;
  /**
   * Whether the name is the thing and nothing else. "Operating lamp" is a lamp, but not one of the usual power: how large such a thing
   * is stays not known.
   */
  readonly isWhole: boolean;
}

/** The thing of the library that a name means: by its own name, or by a word that people use for it. */
export function libraryItem(name: string): Meant | undefined {
  const plain = name.trim().toLowerCase();
  const own = byName.get(plain);
  if (own !== undefined) return { item: own, isWhole: true };
  for (const [meant, pattern] of WORDS) {
    const word = pattern.exec(plain)?.[0];
    const item = word === undefined ? undefined : byName.get(meant.toLowerCase());
    if (item !== undefined) return { item, isWhole: word === plain || `${String(word)}s` === plain };
  }
  return undefined;
}

/** Names in that table, which a test holds against the library. */
export const WORDED_NAMES: readonly string[] = WORDS.map(([name]) => name);
