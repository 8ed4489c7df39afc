// The simulated site and its reader for `npm run bench`, each beside a baseline taken in the same run.
import { fork } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { connect } from 'node:net';
import { join } from 'node:path';
import { root, stopChild } from './run.mjs';

const HOST = '127.0.0.1';
const DEVICES = 50;
const EVERY_MS = 200;
const SECONDS = 10;

function fernhollow({ readDesignText, SAMPLE_TYPES }) {
  return readDesignText(readFileSync(join(root, 'examples', 'fernhollow.json'), 'utf8'), SAMPLE_TYPES).value;
}

/** An hour of six units and eight modules under load, beside a loop that only counts its steps. */
export function reportSite(core) {
  const { plan } = core.sitePlan(fernhollow(core), core.SAMPLE_TYPES);
  const state = core.newSite(plan, 1);
  const act = (command) => core.commandSite(plan, state, command);
  for (const { unit } of plan.sets[0].units) act({ do: 'firmware', stackId: 's1', unitId: unit.id });
  act({ do: 'battery', stackId: 's1', closed: true });
  act({ do: 'units', on: true });
  act({ do: 'grid', present: false });
  core.runSite(plan, state, 60);
  for (const line of [0, 1, 2]) act({ do: 'test-load', line, watts: 3000 });
  core.runSite(plan, state, 600);
  const seconds = 3600;
  const from = performance.now();
  core.runSite(plan, state, seconds);
  const ms = performance.now() - from;
  const plainFrom = performance.now();
  const solve = plan.sets[0].circuit;
  let steps = 0;
  for (let step = 0; step < seconds / core.STEP_S; step += 1) {
    core.shareBank(solve, [1500, 1500, 1500, 1500, 1500, 1500]);
    steps += 1;
  }
  const plain = performance.now() - plainFrom;
  console.log(
    `Simulated site, 6 units, 8 modules: an hour in ${ms.toFixed(0)} ms, ${((1000 * seconds) / ms).toFixed(0)} times real time (its bank solved ${steps} times and nothing else: ${plain.toFixed(0)} ms; wanted above 100 times)`,
  );
}

/** What fifty loops over a second and more cost, as a share of one core, and how many rounds they made. */
async function loopsFor(makeRound) {
  const rounds = await Promise.all(Array.from({ length: DEVICES }, () => makeRound()));
  let made = 0;
  let late = 0;
  let stopped = false;
  const loop = async ({ round }) => {
    while (!stopped) {
      const begun = performance.now();
      await round();
      made += 1;
      const left = EVERY_MS - (performance.now() - begun);
      if (left < 0) late += 1;
      await new Promise((resolve) => setTimeout(resolve, Math.max(0, left)));
    }
  };
  const from = process.cpuUsage();
  const begun = performance.now();
  const loops = rounds.map(loop);
  await new Promise((resolve) => setTimeout(resolve, SECONDS * 1000));
  stopped = true;
  await Promise.all(loops);
  const took = performance.now() - begun;
  const used = process.cpuUsage(from);
  for (const { close } of rounds) close();
  return { aSecond: (made / took) * 1000, late, share: (used.user + used.system) / 1000 / took };
}

/** The same requests by a bare socket that looks at nothing it gets. */
async function bareRound(port, spans) {
  const socket = connect(port, HOST);
  socket.setNoDelay(true);
  await new Promise((resolve) => socket.once('connect', resolve));
  const ask = ({ address, length }) =>
    new Promise((resolve) => {
      const wanted = 9 + 2 * length;
      let got = 0;
      const take = (chunk) => {
        got += chunk.length;
        if (got < wanted) return;
        socket.off('data', take);
        resolve();
      };
      socket.on('data', take);
      const request = Buffer.from([0, 1, 0, 0, 0, 6, 1, 3, 0, 0, 0, 0]);
      request.writeUInt16BE(address, 8);
      request.writeUInt16BE(length, 10);
      socket.write(request);
    });
  return {
    round: async () => {
      for (const span of spans) await ask(span);
    },
    close: () => socket.destroy(),
  };
}

/** Fifty devices five times a second: how much of one core the reader needs. The devices answer from a process of their own. */
export async function reportReader(core) {
  const { ModbusDevice } = await import('../../server/dist/live/modbusDevice.js');
  const { plan } = core.sitePlan(fernhollow(core), core.SAMPLE_TYPES);
  const { words, rows } = core.siteRegisters(plan, core.newSite(plan, 1));
  const flat = new Uint16Array(Math.max(...words.keys()) + 1);
  for (const [address, word] of words) flat[address] = word;
  const devices = fork(new URL('./benchDevices.mjs', import.meta.url).pathname);
  const told = new Promise((resolve) => devices.once('message', resolve));
  devices.send([...flat]);
  const port = await told;
  try {
    const spans = core.spansOf(rows, 12);
    const bare = await loopsFor(() => bareRound(port, spans));
    const read = await loopsFor(async () => {
      const device = new ModbusDevice({ host: HOST, port, unitId: 1, rows: undefined });
      return { round: () => device.read(), close: () => device.close() };
    });
    const percent = (share) => `${(100 * share).toFixed(0)} % of one core`;
    console.log(
      `Reader: ${DEVICES} devices of ${rows.length} figures, ${read.aSecond.toFixed(0)} whole reads a second (${read.late} late), ${percent(read.share)}; the same requests by bare sockets ${bare.aSecond.toFixed(0)} a second, ${percent(bare.share)} (wanted 250 below 50 %)`,
    );
  } finally {
    await stopChild(devices);
  }
}
