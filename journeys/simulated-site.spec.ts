import { readFileSync } from 'node:fs';
import type { Procedure, siteWire } from '@bastion/core';
import AxeBuilder from '@axe-core/playwright';
import { expect, type Locator, type Page, test } from '@playwright/test';
import { comeInAs, goTo, openJob, passGates } from './workbench.ts';

type Step = Procedure['steps'][number];

/** A job of its own, made from a sample, so that nobody else's journey meets what happens here. */
async function ownJob(page: Page, sample: string, name: string): Promise<number> {
  const text = readFileSync(new URL(`../examples/${sample}.json`, import.meta.url), 'utf8');
  const document = { ...(JSON.parse(text) as object), name };
  const made = await page.request.post('/api/jobs/import', { data: document });
  return ((await made.json()) as { id: number }).id;
}

/** A hand at the simulated site of a job. */
const handAt =
  (page: Page, jobId: number) =>
  async (action: siteWire.SiteAction): Promise<siteWire.OpenSite> => {
    const answer = await page.request.post(`/api/jobs/${jobId}/site/actions`, { data: action });
    expect(answer.ok(), await answer.text()).toBe(true);
    return (await answer.json()) as siteWire.OpenSite;
  };

/** Waits until the site has come so far, its time running fast meanwhile. */
async function until(
  hand: ReturnType<typeof handAt>,
  fits: (view: siteWire.OpenSite['view']) => boolean,
): Promise<void> {
  await hand({ kind: 'speed', speed: 100 });
  await expect.poll(async () => fits((await hand({ kind: 'speed', speed: 100 })).view)).toBe(true);
  await hand({ kind: 'speed', speed: 1 });
}

const command = (one: Extract<siteWire.SiteAction, { kind: 'command' }>['command']): siteWire.SiteAction => ({
  kind: 'command',
  command: one,
});

/** Takes every figure that the device gives for the step in sight, and types or ticks the rest. */
async function takeStep(step: Step, sight: Locator): Promise<void> {
  await expect(sight.getByRole('heading', { name: step.title })).toBeVisible();
  const all = sight.getByRole('button', { name: /^Take all \d+ live figures/ });
  if (await all.isVisible()) await all.click();
  for (const reading of step.readings) {
    if (reading.kind === 'confirmation') {
      const yes = sight.getByRole('group', { name: reading.label }).getByRole('button', { name: 'Yes' });
      await yes.click();
      await expect(yes).toHaveAttribute('aria-pressed', 'true');
      continue;
    }
    const field = sight.getByLabel(reading.label, { exact: true });
    if ((await field.inputValue()) !== '') continue;
    const take = sight.getByRole('button', {
      name: new RegExp(`^Take .* for ${reading.label.replaceAll(/[()+]/g, '.')}$`),
    });
    if (await take.isVisible()) await take.click();
    else {
      const { nominal, expected } = reading;
      await field.fill(String(nominal ?? expected?.low ?? expected?.high ?? 1));
      await field.press('Enter');
    }
    await expect(field).not.toHaveValue('');
  }
}

/** The panel has dozens of controls: none of them is closed to anybody. */
async function expectNoBarriers(page: Page): Promise<void> {
  const { violations } = await new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa', 'wcag22aa']).analyze();
  expect(
    violations.map(({ id, nodes }) => `${id}: ${nodes.map(({ target }) => target.join(' ')).join(', ')}`),
  ).toEqual([]);
}

/** Goes on past what is outside in a gate, with a reason. */
async function giveReasons(sight: Locator): Promise<void> {
  const reason = sight.getByLabel(/Reason to go on/);
  const given = sight.getByText(/gone on by/);
  while (await reason.first().isVisible()) {
    const before = await given.count();
    await reason.first().fill('Known, and looked into');
    await sight.getByRole('button', { name: 'Go on with this reason' }).first().click();
    await expect(given).toHaveCount(before + 1);
  }
}

test('the whole test of Fernhollow is run on its simulated site, and a lead that is pulled is found by it', async ({
  page,
}) => {
  test.setTimeout(300_000);
  page.setDefaultTimeout(15_000);
  await comeInAs(page, 'Dana');
  const jobId = await ownJob(page, 'fernhollow', 'Fernhollow on the bench');
  await page.goto(`/jobs/${jobId}/test/site`);
  await page.getByRole('button', { name: 'Open the site' }).click();
  await expect(page.getByText('Stack: off')).toBeVisible();
  const hand = handAt(page, jobId);
  const { view, port, unitId } = await hand({ kind: 'speed', speed: 1 });
  const [set] = view.sets;
  const stackId = set?.stackId ?? '';

  await test.step('a comms lead is pulled at the panel', async () => {
    const faults = page.getByRole('region', { name: 'Faults' });
    await faults.getByLabel('What is wrong').selectOption({ label: 'A comms lead is pulled' });
    await faults.getByLabel('Where').selectOption({ label: 'module 3 to module 4' });
    await faults.getByRole('button', { name: 'Plant it' }).click();
    await expect(faults.getByText('A comms lead is pulled: module 3 to module 4')).toBeVisible();
    await expectNoBarriers(page);
  });

  await page.getByRole('link', { name: 'Back to the test' }).click();
  await page.getByRole('button', { name: 'Start a run' }).click();
  await expect(page.getByText(/Run 1, running/)).toBeVisible();
  // As any device: by its address, and read five times a second.
  const device = page.getByRole('region', { name: 'Live readings' });
  await page.getByText('Read live from a device').click();
  await device.getByLabel('Port').fill(String(port));
  await device.getByLabel('Unit').fill(String(unitId));
  await device.getByLabel('Every, s').fill('0.2');
  await device.getByRole('button', { name: 'Join', exact: true }).click();
  await expect(page.getByRole('status').filter({ hasText: /^Live$/ })).toBeVisible();
  const runId = Number(new URL(page.url()).searchParams.get('run'));
  const { procedure } = (await (await page.request.get(`/api/runs/${runId}`)).json()) as {
    procedure: Procedure;
  };
  const sight = page.getByRole('article');

  /** What has to be done on site before the readings of a step can be taken. */
  const prepare = async ({ id, readings }: Step): Promise<void> => {
    const idle = async (): Promise<void> => {
      for (const line of [0, 1, 2]) await hand(command({ do: 'test-load', line, watts: 0 }));
      await hand(command({ do: 'circuits', on: false }));
    };
    const alive = async (): Promise<void> => {
      await hand(command({ do: 'units', on: true }));
      await until(hand, ({ sets }) => ['island', 'joined'].includes(sets[0]?.phase ?? ''));
    };
    if (id === 'battery-on-s1') await hand(command({ do: 'battery', stackId, closed: true }));
    if (id === 'inverter-on-s1') await hand(command({ do: 'units', on: true }));
    if (id === 'firmware-s1')
      for (const { unitId } of set?.units ?? []) await hand(command({ do: 'firmware', stackId, unitId }));
    if (id === 'grid-on-s1') {
      await hand(command({ do: 'isolator', closed: true }));
      await until(hand, ({ sets }) => sets[0]?.phase === 'joined');
    }
    if (id === 'island-s1') {
      await hand(command({ do: 'grid', present: false }));
      await until(hand, ({ sets }) => sets[0]?.phase === 'island');
    }
    const load = /^load-s1-L(\d)-/.exec(id);
    if (load !== null) {
      await idle();
      const amps = readings.find(({ id: reading }) => reading.startsWith('current-'))?.nominal ?? 0;
      await hand(command({ do: 'test-load', line: Number(load[1]) - 1, watts: Math.round(amps * 230) }));
    }
    if (id.startsWith('start-')) {
      await idle();
      await alive();
      await hand(command({ do: 'test-load', line: Number(id.at(-1)) - 1, watts: 500 }));
    }
    if (id === 'generator-g1') {
      await idle();
      await alive();
      await hand(command({ do: 'generator', generatorId: 'g1', run: true }));
      // All that the inverters may charge with is more than the engine gives: less is set, and it is started again.
      await until(hand, ({ events }) => events.some(({ sentence }) => sentence.includes('stalls')));
      await hand(command({ do: 'setting', stackId, setting: 'charge', value: 20 }));
      await hand(command({ do: 'generator', generatorId: 'g1', run: true }));
      await until(hand, ({ sets }) => sets[0]?.phase === 'joined');
    }
    if (id === 'return-s1') {
      await hand(command({ do: 'generator', generatorId: 'g1', run: false }));
      await until(hand, ({ sets }) => sets[0]?.phase === 'island');
      await hand(command({ do: 'grid', present: true }));
      await until(hand, ({ sets }) => sets[0]?.phase === 'joined');
    }
    if (id === 'loss-s1') {
      await hand(command({ do: 'grid', present: false }));
      await until(hand, ({ sets }) => sets[0]?.phase === 'island');
    }
    if (id === 'black-start-s1') {
      await hand(command({ do: 'units', on: false }));
      await until(hand, ({ sets }) => sets[0]?.phase === 'off');
      await alive();
    }
  };

  for (const [at, step] of procedure.steps.entries()) {
    await prepare(step);
    if (step.readings.some(({ kind }) => kind !== 'confirmation'))
      // A figure of before the step would be the figure of another state: the next looks are awaited.
      await page.waitForTimeout(step.section === 'gates' ? 0 : 800);
    await takeStep(step, sight);
    if (step.id === 'wake-s1')
      await test.step('only three of eight modules show themselves: the lead is found, put back, and read again', async () => {
        await expect(sight.getByLabel('Modules that show themselves on', { exact: true })).toHaveValue('3');
        await expect(sight.getByRole('alert').filter({ hasText: 'Outside what is expected' })).toBeVisible();
        await hand(command({ do: 'mend', fault: { kind: 'comms-lead-pulled', at: 'battery-bus s1 bus-4' } }));
        await sight.getByRole('button', { name: 'Test this step again' }).click();
        await sight.getByRole('button', { name: 'Take 8 for Modules that show themselves on' }).click();
        await expect(sight.getByText('Attempt 1: outside')).toBeVisible();
      });
    await giveReasons(sight);
    if (at < procedure.steps.length - 1) await page.getByRole('button', { name: 'Next step' }).click();
  }

  await page.getByRole('button', { name: 'Finish the test' }).click();
  const finish = page.getByRole('button', { name: 'Finish', exact: true });
  if (await finish.isVisible()) await finish.click();
  await expect(page.getByText(/Run 1, finished/)).toBeVisible();
  const ended = (await (await page.request.get(`/api/runs/${runId}`)).json()) as {
    readings: { stepId: string; readingId: string; value: number; source: string }[];
  };
  const live = ended.readings.filter(({ source }) => source.startsWith('live from 127.0.0.1'));
  expect(live.length).toBeGreaterThan(90);
  const last = (stepId: string, readingId: string): number =>
    ended.readings.findLast((one) => one.stepId === stepId && one.readingId === readingId)?.value ?? NaN;
  // 60 s is what the type watches a grid for; 41.4 A is the load of one line, through two units.
  expect(last('return-s1', 'reconnect-delay')).toBeCloseTo(60, 0);
  const both = last('load-s1-L2-100', 'unit-u3') + last('load-s1-L2-100', 'unit-u4');
  expect(Math.abs(both - 41.4)).toBeLessThan(0.4);
  expect(last('wake-s1', 'modules-seen')).toBe(8);

  await test.step('a change afterwards asks for a retest of what it touched, and of nothing else', async () => {
    const { revision } = (await (await page.request.get(`/api/jobs/${jobId}`)).json()) as {
      revision: number;
    };
    await page.request.post(`/api/jobs/${jobId}/edits`, {
      data: {
        baseRevision: revision,
        editId: 'firmware-of-unit-5',
        patches: [
          { op: 'set', path: ['stacks', 's1', 'units', 'u5', 'firmware'], before: '2.05', after: '2.08' },
        ],
      },
    });
    await page.getByRole('button', { name: 'What has to be tested again?' }).click();
    await expect(page.getByText(/steps: its firmware was changed/)).toBeVisible();
    await page.getByRole('button', { name: /^Start a retest of/ }).click();
    await expect(page.getByText(/A partial retest after run 1/)).toBeVisible();
    await expect(page.getByRole('button', { name: /25 % load/ })).toHaveCount(0);
  });

  await test.step('a step is skipped with a reason, and taken up again', async () => {
    await page.getByRole('button', { name: /Stack: firmware/ }).click();
    const step = page.getByRole('article');
    // Shut behind the gates: nothing is taken, and nothing skipped.
    await expect(step.getByText('Skip this step with a reason')).toHaveCount(0);
    await passGates(page);
    await page.getByRole('button', { name: /Stack: firmware/ }).click();
    await step.getByText('Skip this step with a reason').click();
    await step.getByLabel(/Why it is not done/).fill('Loaded in the workshop');
    await step.getByRole('button', { name: 'Skip it' }).click();
    await expect(step.getByText('Skipped by Dana Wells: Loaded in the workshop')).toBeVisible();
    await step.getByRole('button', { name: 'Take it up again' }).click();
    await expect(step.getByText('Skip this step with a reason')).toBeVisible();
  });

  await test.step('a link that is lost is said at once, and leaves no figure behind', async () => {
    await page.getByText('Read live from a device').click();
    await page.getByRole('button', { name: 'Join the simulated site' }).click();
    await expect(page.getByRole('status').filter({ hasText: /^Live$/ })).toBeVisible();
    await page.request.delete(`/api/jobs/${jobId}/site`);
    await expect(page.getByRole('status').filter({ hasText: 'Link lost' })).toBeVisible();
    await expect(page.getByText('nobody answers under that unit identifier')).toBeVisible();
    await page
      .getByRole('button', { name: /island with no load/ })
      .first()
      .click();
    await expect(page.getByText('Live', { exact: true })).toHaveCount(0);
  });
});

test('an apprentice finds a loose terminal by measuring, and is told what counted', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await comeInAs(page, 'Femi');
  await openJob(page, 'Tern Rock field station');
  await goTo(page, 'Islanding test');
  await page.getByRole('link', { name: 'Simulated site' }).click();
  await page.getByRole('button', { name: 'Open the site' }).click();
  await page.getByLabel('Kind of fault').selectOption({ label: 'A terminal was not torqued' });
  await page.getByRole('button', { name: 'Begin an exercise' }).click();
  const exercise = page.getByRole('region', { name: 'Exercise' });
  await expect(exercise).toBeVisible();
  await page.getByRole('button', { name: 'Bring everything up' }).click();
  await page.getByRole('switch', { name: /^Grid/ }).click();
  await page.getByLabel('Load bank on L1').fill('1500');
  await page.getByLabel('Load bank on L1').press('Enter');
  // Nothing on the page gives it away.
  await expect(page.getByRole('region', { name: 'Faults' })).toHaveCount(0);

  await expectNoBarriers(page);
  const measured: number[] = [];
  for (const module of [1, 2, 3, 4]) {
    await exercise
      .getByLabel('Place')
      .selectOption({ label: `module ${module}, from lug to terminal (bare terminals)` });
    await exercise.getByLabel('Range').selectOption('0.2');
    await exercise.getByRole('button', { name: 'Measure' }).click();
    await expect(exercise.getByRole('status').last()).toHaveText(/^0\.\d{4} V$/);
    measured.push(Number.parseFloat((await exercise.getByRole('status').last().textContent()) ?? ''));
  }
  const worst = measured.indexOf(Math.max(...measured)) + 1;
  await exercise.getByLabel('What is wrong').selectOption({ label: 'A terminal was not torqued' });
  await exercise.getByLabel('Where').selectOption({ label: `terminal of module ${worst}` });

  // Dead first: off, open, the tester proven, and the port proven dead.
  for (const unit of ['unit 1', 'unit 2'])
    await page.getByRole('switch', { name: new RegExp(`^${unit}`) }).click();
  await page.getByRole('switch', { name: /Devices of the battery/ }).click();
  await exercise.getByRole('button', { name: 'Prove the tester' }).click();
  await exercise.getByLabel('Place').selectOption({ label: 'unit 1, battery port + to − (bare terminals)' });
  await exercise.getByLabel('Instrument').selectOption({ label: 'Two-pole voltage tester' });
  await exercise.getByRole('button', { name: 'Measure' }).click();
  await expect(exercise.getByText('Proven dead: 1.')).toBeVisible();
  await exercise.getByRole('button', { name: 'This is it: mend it' }).click();
  await expect(exercise.getByText(/Found by measuring, and mended. Score: 100 of 100/)).toBeVisible();
  await expect(exercise.getByText(/Its joint has 4 mΩ/)).toBeVisible();
  expect(
    await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth),
  ).toBe(0);
  await page.getByRole('button', { name: 'Close it' }).click();
  await expect(page.getByRole('button', { name: 'Open the site' })).toBeVisible();
});
