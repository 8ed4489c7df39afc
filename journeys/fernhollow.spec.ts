import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { expect, type Page, test } from '@playwright/test';
import { cell, comeInAs, goTo, openJob, paste, saved, typeIn, passGates } from './workbench.ts';

const JOB = 'Fernhollow veterinary practice';
const chip = (page: Page, name: string) => page.getByRole('button', { name: new RegExp(`^${name},`) });
const headroom = (page: Page) => page.getByRole('complementary', { name: 'Headroom' });

test('a designer finds and mends the trouble of Fernhollow, from site to limits', async ({ page }) => {
  await comeInAs(page, 'Dana');
  await openJob(page, JOB);

  await test.step('site: a hotter room derates the inverters', async () => {
    const hottest = page.getByLabel('Hottest air at the equipment', { exact: true });
    await hottest.fill('45');
    await hottest.press('Enter');
    await saved(page);
    await goTo(page, 'Stack');
    // 2 · 5000 · 0.9 / 1.05 = 8571 VA
    await expect(page.getByRole('row', { name: /^L1 8.57 kVA/ })).toBeVisible();
    await page.getByRole('button', { name: /^Undo/ }).click();
    await expect(page.getByRole('row', { name: /^L1 9.52 kVA/ })).toBeVisible();
  });

  await test.step('loads: a figure that is not possible is refused, and one that is not known shows', async () => {
    await goTo(page, 'Loads');
    await typeIn(page, cell(page, 'Vaccine fridge', 5), '1.4');
    await expect(page.getByText(/pf was not changed/)).toBeVisible();
    await expect(cell(page, 'Vaccine fridge', 5)).toHaveText('0.85');
    await cell(page, 'Vaccine fridge', 4).click();
    await page.keyboard.press('Delete');
    await expect(cell(page, 'Vaccine fridge', 4)).toContainText('not known');
    await goTo(page, 'Limits');
    await expect(
      page.getByText(/the load is not known yet. Missing: running power of Vaccine fridge/).first(),
    ).toBeVisible();
    await page.keyboard.press('Control+z');
    await expect(page.getByText(/running power of Vaccine fridge/)).toHaveCount(0);
  });

  await test.step('loads: a row is duplicated and deleted by keyboard', async () => {
    await goTo(page, 'Loads');
    await cell(page, 'Autoclave', 0).first().click();
    await page.keyboard.press('Control+Shift+d');
    await expect(page.getByRole('rowheader', { name: 'Autoclave (copy)' })).toBeVisible();
    await cell(page, 'Autoclave (copy)', 0).click();
    await page.keyboard.press('Control+Delete');
    await expect(page.getByRole('rowheader', { name: 'Autoclave (copy)' })).toHaveCount(0);
  });

  await test.step('loads: cells come in from a spreadsheet, and go again with undo', async () => {
    await cell(page, 'Blood analyser', 3).click();
    await paste(page, cell(page, 'Blood analyser', 3), '3\t500\t0.95');
    await expect(cell(page, 'Blood analyser', 4)).toHaveText('500');
    await expect(cell(page, 'Blood analyser', 5)).toHaveText('0.95');
    await page.keyboard.press('Control+z');
    await expect(cell(page, 'Blood analyser', 4)).toHaveText('450');
  });

  await test.step('partitions: the strips move while circuits are dragged and pushed by keyboard', async () => {
    await goTo(page, 'Partitions');
    const largestL1 = headroom(page)
      .getByRole('region', { name: 'Largest start' })
      .getByRole('button')
      .first();
    await expect(largestL1).toContainText('1.07 kVA over');
    // Both boards are in sight for the pointer.
    await page.setViewportSize({ width: 1280, height: 1500 });
    const from = await chip(page, 'X-ray').locator('..').locator('[aria-hidden]').first().boundingBox();
    const to = await page.getByRole('region', { name: 'Grid side' }).boundingBox();
    if (from === null || to === null) throw new Error('The board is not on the screen.');
    await page.mouse.move(from.x + 5, from.y + 8);
    await page.mouse.down();
    await page.mouse.move(from.x - 40, from.y + 8, { steps: 4 });
    await page.mouse.move(to.x + to.width / 2, to.y + 30, { steps: 8 });
    await page.mouse.up();
    await expect(
      page.getByRole('region', { name: 'Grid side' }).getByRole('button', { name: /^X-ray,/ }),
    ).toBeVisible();
    await expect(largestL1).toContainText('left');

    await chip(page, 'X-ray').focus();
    await page.keyboard.press('ArrowRight');
    await expect(
      page.getByRole('region', { name: 'Backup output' }).getByRole('button', { name: /^X-ray,/ }),
    ).toBeFocused();
    await page.keyboard.press('3');
    await expect(chip(page, 'X-ray')).toHaveAccessibleName(/L3/);
    await expect(largestL1).toContainText('left');
    await chip(page, 'Isolation ward heating').focus();
    await page.keyboard.press('ArrowRight');
    await expect(page.getByRole('region', { name: 'Not placed yet' })).toHaveCount(0);
    await saved(page);
  });

  await test.step('what was typed is there after a reload', async () => {
    await page.reload();
    await expect(
      page
        .getByRole('region', { name: 'Grid side' })
        .getByRole('button', { name: /^Isolation ward heating,/ }),
    ).toBeVisible();
  });

  await test.step('stack: one firmware on all units mends a finding', async () => {
    await goTo(page, 'Stack');
    await page.getByText('Units one by one').click();
    const firmware = page.getByLabel('Firmware').nth(4);
    await expect(firmware).toHaveValue('2.05');
    await firmware.fill('2.08');
    await firmware.press('Enter');
    await saved(page);
    await page.getByRole('radio', { name: /Lost: unit 1/ }).click();
    await expect(headroom(page).getByRole('region', { name: /Continuous load/ })).toBeVisible();
  });

  await test.step('limits: a finding opens into its working, and an input leads to its field', async () => {
    await goTo(page, 'Limits');
    await expect(
      page.getByRole('button', { name: /Same firmware on all units, Island: within/ }),
    ).toBeVisible();
    await page.getByRole('button', { name: /Battery current at nominal voltage, Island/ }).click();
    const drawer = page.getByRole('dialog');
    await expect(drawer).toContainText('I = P / (η · U)');
    await expect(drawer).toContainText('/ (0.94 · 51.2)');
    await drawer.getByRole('link', { name: /Autoclave \(Autoclave\)/ }).click();
    await expect(page).toHaveURL(/loads#field=/);
    await expect(page.locator(':focus')).toHaveText('2400');
  });
});

test('a field electrician runs the islanding test, aborts it, and tests again', async ({ page }) => {
  await comeInAs(page, 'Femi');
  await openJob(page, 'Tern Rock field station');
  await goTo(page, 'Islanding test');
  await page.getByRole('button', { name: 'Start a run' }).click();
  await expect(page.getByText(/Run 1, running/)).toBeVisible();
  await expect(page.getByText(/things are over/).first()).toBeVisible();

  // The gate is shut: a later step can be looked at and takes no readings.
  await expect(page.getByText('This is a gate')).toBeVisible();
  await page.getByRole('button', { name: /island with no load/ }).click();
  await expect(page.getByLabel('Transfer time')).toBeDisabled();
  await passGates(page);
  await page.getByRole('button', { name: /island with no load/ }).click();

  const volts = page.getByLabel('Voltage L1 to neutral');
  await volts.fill('190');
  await volts.press('Enter');
  await expect(page.getByRole('alert').filter({ hasText: 'Stop, make safe' })).toBeVisible();
  // The alarm stays in sight on every step, and those after it take nothing.
  await page.getByRole('button', { name: 'Next step' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'Past the abort limit' })).toBeVisible();
  await page.getByRole('button', { name: 'Go to the step' }).click();
  await volts.fill('229');
  await volts.press('Enter');
  await expect(page.getByRole('alert').filter({ hasText: 'Stop, make safe' })).toHaveCount(0);
  await page.getByLabel('Transfer time').fill('a moment');
  await page.getByLabel('Transfer time').press('Enter');
  await expect(page.getByText('"a moment" is not a number. It was not recorded.')).toBeVisible();
  await page.getByLabel('Transfer time').fill('26');
  await page.getByLabel('Transfer time').press('Enter');
  await expect(page.getByRole('alert').filter({ hasText: 'Outside what is expected' })).toBeVisible();

  await page.getByRole('button', { name: 'Test this step again' }).click();
  await page.getByLabel('Transfer time').fill('18,5');
  await page.getByLabel('Transfer time').press('Enter');
  await expect(page.getByText('Attempt 1: outside')).toBeVisible();

  await page.getByRole('button', { name: 'Abort the test' }).click();
  await expect(page.getByRole('button', { name: 'Abort', exact: true })).toBeDisabled();
  await page.getByLabel('Reason').fill('Storm coming in');
  await page.getByRole('button', { name: 'Abort', exact: true }).click();
  await expect(page.getByText(/Run 1, aborted/)).toBeVisible();
  await expect(page.getByLabel('Transfer time')).toBeDisabled();

  await page.reload();
  await expect(page.getByText(/Reason: Storm coming in/)).toBeVisible();
  const record = await page.request.get(
    (await page.getByRole('link', { name: 'Record as PDF' }).getAttribute('href')) ?? '',
  );
  const text = execFileSync('pdftotext', ['-layout', '-', '-'], { input: await record.body() }).toString();
  for (const words of [
    'Storm coming in',
    '190 V',
    'corrected below',
    '26 ms',
    '18.5 ms',
    'Femi Okafor',
    'within the limits entered',
  ])
    expect(text).toContain(words);

  await page.getByRole('button', { name: 'All runs' }).click();
  await page.getByRole('button', { name: 'Start a run' }).click();
  await expect(page.getByText(/Run 2, running/)).toBeVisible();
  await page.getByRole('button', { name: 'Finish the test' }).click();
  await expect(page.getByRole('alertdialog')).toContainText('steps are not done');
  await page.getByRole('button', { name: 'Finish', exact: true }).click();
  await expect(page.getByText(/Run 2, finished/)).toBeVisible();
});

test('a design goes out as JSON and comes back the same, and what is not ours is refused whole', async ({
  page,
}) => {
  await comeInAs(page, 'Dana');
  await openJob(page, 'Quillback boatyard workshop');
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Export' }).click();
  const path = await (await download).path();
  const first = readFileSync(path, 'utf8');
  expect(JSON.parse(first)).toEqual(
    JSON.parse(readFileSync(new URL('../examples/quillback.json', import.meta.url), 'utf8')),
  );

  const chooser = page.getByLabel('JSON file to replace this design');
  const bring = (name: string, text: string) =>
    chooser.setInputFiles({ name, mimeType: 'application/json', buffer: Buffer.from(text) });
  await bring('shopping.json', '{"milk":2}');
  await expect(page.getByText(/shopping.json was not taken over. format: is missing/)).toBeVisible();
  await bring('cold.json', first.replace('"equipmentHighestC": 42', '"equipmentHighestC": 420'));
  await expect(page.getByText('site.equipmentHighestC: must be at most 90, but is 420')).toBeVisible();
  await bring('later.json', first.replace('"format": 6', '"format": 8'));
  await expect(page.getByText(/open it with a newer version/)).toBeVisible();
  await bring('back.json', first);
  await expect(page.getByText(/back.json was taken over/)).toBeVisible();
  await expect(page.getByLabel('Hottest air at the equipment', { exact: true })).toHaveValue('42');

  const limits = await page.request.get('/api/jobs/3/limits.pdf');
  const text = execFileSync('pdftotext', ['-layout', '-', '-'], { input: await limits.body() }).toString();
  for (const words of [
    'Quillback boatyard workshop: limits',
    'Over the limit',
    'AC-coupled PV',
    'Revision 2',
  ])
    expect(text).toContain(words);
});

test('two windows: the other’s change arrives, and a clash asks which value stays', async ({
  page,
  context,
}) => {
  await comeInAs(page, 'Dana');
  await openJob(page, 'Tern Rock field station');
  const other = await context.newPage();
  await other.goto(page.url());
  const altitude = (where: Page) => where.getByLabel('Altitude', { exact: true });
  await expect(altitude(other)).toHaveValue('35');
  await altitude(page).fill('50');
  await altitude(page).press('Enter');
  await saved(page);
  await expect(altitude(other)).toHaveValue('50');

  // The second window loses its line to the server for a while, and both change the same figure.
  await context.route('**/api/jobs/*/events', (route) => route.abort());
  await other.reload();
  await expect(altitude(other)).toHaveValue('50');
  await altitude(page).fill('60');
  await altitude(page).press('Enter');
  await saved(page);
  await altitude(other).fill('70');
  await altitude(other).press('Enter');
  const asks = other.getByRole('alertdialog');
  await expect(asks).toContainText('altitude');
  await expect(asks).toContainText('60');
  await expect(asks).toContainText('70');
  await asks.getByRole('button', { name: 'Keep mine' }).click();
  await saved(other);
  // Who cannot hear is told so.
  await expect(other.getByText('Saved, changes of others do not arrive')).toBeVisible();
  await other.reload();
  await expect(altitude(other)).toHaveValue('70');
});

test('what is typed without a connection is kept, also over a reload', async ({ page, context }) => {
  await comeInAs(page, 'Dana');
  await openJob(page, 'Fernhollow veterinary practice');
  await context.route('**/api/jobs/*/edits', (route) => route.abort());
  await page.getByLabel('Altitude', { exact: true }).fill('333');
  await page.getByLabel('Altitude', { exact: true }).press('Enter');
  await expect(page.getByRole('status').filter({ hasText: 'Kept on this device' })).toBeVisible();
  await context.unroute('**/api/jobs/*/edits');
  await page.reload();
  await expect(page.getByLabel('Altitude', { exact: true })).toHaveValue('333');
  await saved(page);
});
