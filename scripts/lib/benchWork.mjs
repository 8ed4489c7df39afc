// Schedules, cutting and captures for `npm run bench`, each beside a baseline taken in the same run.
import { designOf } from './benchDesigns.mjs';

const timed = (work) => {
  const from = performance.now();
  const value = work();
  return { value, ms: performance.now() - from };
};

/** Every schedule of a large design, beside JSON.parse of it. */
export function reportSchedules(core) {
  const text = JSON.stringify(designOf(600));
  const parse = timed(() => JSON.parse(text));
  const { value: design } = core.readDesignText(text, core.SAMPLE_TYPES);
  const make = () => {
    const installation = core.compile(structuredClone(design), core.SAMPLE_TYPES);
    return core.SCHEDULE_KINDS.map(
      (kind) =>
        `${kind} ${timed(() => core.scheduleOf(kind, { design, catalogue: core.SAMPLE_TYPES, installation })).ms.toFixed(1)}`,
    );
  };
  make();
  console.log(`Schedules of 600 circuits, ms (JSON.parse ${parse.ms.toFixed(1)}): ${make().join(', ')}`);
}

/** A cut list of 400 pieces, beside the number that no plan goes below and what the longest-first rule buys. */
export function reportCutting(core) {
  const pieces = Array.from({ length: 400 }, (_, at) => ({
    id: `p${at}`,
    lengthM: 0.6 + ((at * 7919) % 977) / 60,
  }));
  const { value: plan, ms } = timed(() => core.cutPlan(pieces, [{ id: 'v', lengthM: 31 }], 50));
  const lengths = pieces.map(({ lengthM }) => lengthM).sort((a, b) => b - a);
  const bins = [];
  for (const one of lengths) {
    const at = bins.findIndex((left) => left >= one);
    if (at < 0) bins.push(50 - one);
    else bins[at] -= one;
  }
  console.log(
    `Cut list of 400 pieces: ${ms.toFixed(0)} ms, ${plan.bought} lengths to buy, at least ${plan.leastBought}; longest first without the van: ${bins.length}`,
  );
}

/** A capture of ten million samples read and measured, beside a plain loop that touches each of its bytes and samples once. */
export function reportWaveform(core) {
  const count = 10_000_000;
  const samples = Float64Array.from({ length: count }, (_, at) =>
    at > 4_000_000 && at < 4_020_000 ? 0 : 325 * Math.sin((2 * Math.PI * 50 * at) / 1_000_000),
  );
  const record = {
    title: 'bench',
    rateHz: 1_000_000,
    nominalHz: 50,
    channels: [{ id: 'V', phase: 'L1', kind: 'voltage', unit: 'V', samples }],
    digital: [],
    triggerS: 4,
    notes: [],
  };
  const bytes = core.writeComtradeFile(record, '2026-01-01');
  const plain = timed(() => {
    let sum = 0;
    for (let at = 0; at < bytes.length; at += 1) sum += bytes[at];
    for (let at = 0; at < count; at += 1) sum += samples[at] * samples[at];
    return sum;
  });
  const read = timed(() => core.readCapture([{ name: 'a.cff', bytes }]));
  if (!read.value.ok) throw new Error(read.value.problems[0]?.message);
  const picture = timed(() => core.pyramidOf(read.value.value.channels[0].samples));
  const measured = timed(() =>
    core.waveFigures(read.value.value, {
      nominalV: 230,
      nominalHz: 50,
      band: 0.06,
      bandHz: 0.5,
      transferMs: 20,
    }),
  );
  console.log(
    `Capture of 10 million samples: read ${read.ms.toFixed(0)} ms, picture ${picture.ms.toFixed(0)} ms, measured ${measured.ms.toFixed(0)} ms; a plain loop over bytes and samples ${plain.ms.toFixed(0)} ms`,
  );
}
