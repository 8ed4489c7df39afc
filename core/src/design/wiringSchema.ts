import { z } from 'zod';
import { INSULATIONS, METHODS } from '../codes/cableKinds.ts';
import { ENTRY_SIDES, partialTerminal } from '../catalogue/common.ts';
import { entities, id, name, nonNegative, positive, temperatureC } from '../values/quantities.ts';

/** How cables are laid. What a cable does not say is as the job has it, and else as planned. */
const layingFields = {
  insulation: z.enum(INSULATIONS).optional(),
  method: z
    .enum(METHODS)
    .optional()
    .describe('A in an insulating wall, B in conduit, C clipped direct; 1 single cores, 2 one cable.'),
  ambientC: temperatureC.optional().describe('Hottest air along the cable.'),
  grouped: z
    .number()
    .int()
    .min(1)
    .max(60)
    .optional()
    .describe(
      'Metric: circuits bunched together, this one counted. North American: current-carrying conductors in the raceway.',
    ),
  terminalColumn: z
    .enum(['60C', '75C'])
    .optional()
    .describe('North American: the column that the terminals are marked for.'),
  serviceLoopM: nonNegative
    .max(20)
    .optional()
    .describe('Left at its ends for working on them, beside the length between them. Without it: none.'),
};

export const laying = z.strictObject(layingFields);
export type Laying = z.infer<typeof laying>;

/** What somebody has said of one cable, by the id that its line has in the installation. */
export const cable = z.strictObject({
  id,
  lineId: z.string().min(1).max(200),
  lengthM: positive.max(5000).optional().describe('Where its length is typed nowhere else.'),
  areaMm2: positive.max(1000).optional().describe('Where its size is typed nowhere else.'),
  ...layingFields,
  parallel: z.number().int().min(1).max(8).optional().describe('Conductors on each line. Without it: one.'),
  neutralCounts: z
    .enum(['yes', 'no'])
    .optional()
    .describe('Whether its neutral carries enough to heat it. Without it: no.'),
  protectiveMm2: positive.max(1000).optional(),
  outsideMm: positive
    .max(200)
    .optional()
    .describe('Outside diameter, of a cable of several cores in one sheath.'),
  passing: z
    .enum(['yes', 'no'])
    .optional()
    .describe('Whether its load never stays for three hours. Without it: it stays.'),
  serves: z
    .enum(['lighting', 'other'])
    .optional()
    .describe('For the voltage it may lose. Without it: other.'),
  dropLimit: z.number().gt(0).max(0.2).optional().describe('Own share of the voltage that it may lose.'),
});
export type Cable = z.infer<typeof cable>;

/** How a cable of comms is made, by the id that its link has in the installation. What is not said is as planned. */
export const linkAsWired = z.strictObject({
  id,
  linkId: z.string().min(1).max(200),
  cable: z
    .enum(['supplied', 'network', 'pair'])
    .optional()
    .describe('The one supplied, a straight network cable, or a pair landed core by core.'),
  lengthM: positive.max(2000).optional(),
  pairs: z
    .enum(['one', 'bunched'])
    .optional()
    .describe('One twisted pair for the bus, or cores of several pairs bunched.'),
  polarity: z.enum(['straight', 'swapped']).optional().describe('From end to end.'),
  shield: z
    .enum(['one-end', 'both-ends', 'neither', 'none'])
    .optional()
    .describe('Where it is earthed; none: the cable has no shield.'),
});
export type LinkAsWired = z.infer<typeof linkAsWired>;

/** A conduit, or a gland into a part, with the cables that go through it. */
export const passage = z.strictObject({
  id,
  name,
  kind: z.enum(['conduit', 'gland']),
  innerMm: positive
    .max(500)
    .optional()
    .describe('Inside diameter of a conduit; the thickest cable a gland seals on.'),
  leastMm: positive.max(500).optional().describe('The thinnest cable a gland seals on.'),
  threadMm: positive.max(500).optional().describe('Diameter of the hole that it needs.'),
  lineIds: z.array(z.string().min(1).max(200)).max(60).describe('The cables in it.'),
  intoId: z.string().min(1).max(200).optional().describe('The part that it goes into.'),
  side: z.enum(ENTRY_SIDES).optional().describe('On which side of that part.'),
});
export type Passage = z.infer<typeof passage>;

/** A splice, a tap or a lug in the course of a cable. */
export const splice = z.strictObject({
  id,
  lineId: z.string().min(1).max(200),
  kind: z.enum(['splice', 'tap', 'lug']),
  minMm2: positive.max(1000).optional(),
  maxMm2: positive.max(1000).optional(),
  enclosure: name.optional(),
  stands: name.optional().describe('Where it stands, in words.'),
});
export type Splice = z.infer<typeof splice>;

/** What the terminals of a port take, read off the thing itself: for what its type does not state, or where it has no type. */
export const readTerminal = z
  .strictObject({
    id,
    portId: z.string().min(1).max(200).describe('The port, by the id that it has in the installation.'),
    ...partialTerminal,
  })
  .refine(
    ({ minMm2 = 0, maxMm2 = Infinity }) => minMm2 <= maxMm2,
    'needs its smallest conductor below its largest',
  );
export type ReadTerminal = z.infer<typeof readTerminal>;

/** A piece of conductor that is at hand. */
export const remnant = z.strictObject({
  id,
  areaMm2: positive.max(1000),
  lengthM: positive.max(5000),
  pieces: z.number().int().min(1).max(500).optional().describe('Alike. Without it: one.'),
  make: z
    .enum(['single', 'flexible', 'cable'])
    .describe('Single core, flexible battery lead, or a cable of several cores.'),
  cores: z.number().int().min(2).max(5).optional().describe('Of a cable, the protective conductor counted.'),
  colour: name.optional(),
});
export type Remnant = z.infer<typeof remnant>;

/** Lengths in which a size is bought. */
export const stockLength = z.strictObject({
  id,
  areaMm2: positive.max(1000).optional().describe('Without it: every size that is not named.'),
  lengthM: positive.max(5000),
});

/** A symbol of the single line that somebody has moved from where it was laid. */
const nudge = z.strictObject({
  id,
  nodeId: z.string().min(1).max(200).describe('The symbol, by what it stands for.'),
  dxPx: z.number().min(-5000).max(5000),
  dyPx: z.number().min(-5000).max(5000),
});

export const wiring = z.strictObject({
  laying: laying.optional().describe('How cables are laid in this job.'),
  cables: entities(cable, 12_000).optional(),
  links: entities(linkAsWired, 2000).optional().describe('How cables of comms are made.'),
  colours: z.enum(['A', 'B']).optional().describe('Which of the two open colour orders network cables have.'),
  passages: entities(passage, 500).optional().describe('Conduits and glands.'),
  terminals: entities(readTerminal, 4000).optional().describe('Terminal data read off the equipment.'),
  splices: entities(splice, 500).optional().describe('Splices, taps and lugs.'),
  remnants: entities(remnant, 500).optional().describe('What is in the van.'),
  stock: entities(stockLength, 60).optional().describe('Lengths that conductors are bought in.'),
  photoGates: z
    .array(z.enum(['terminations', 'comms', 'settings']))
    .max(3)
    .optional()
    .describe('What counts as done only with a photo of it.'),
  nudges: entities(nudge, 500).optional().describe('Symbols of the single line that were moved by hand.'),
  kerfM: nonNegative.max(1).optional().describe('Lost at each cut.'),
});
export type Nudge = z.infer<typeof nudge>;

export type Wiring = z.infer<typeof wiring>;
