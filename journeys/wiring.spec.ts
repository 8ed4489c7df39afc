import { readFileSync } from 'node:fs';
import { expect, type Page, test } from '@playwright/test';
import { XMLParser } from 'fast-xml-parser';
import { comeInAs, goTo, openJob, saved } from './workbench.ts';

const modeCell = (page: Page, mode: string, words: string) =>
  page.getByRole('row', { name: new RegExp(`^${mode}`) }).getByRole('button', { name: words });
const drawing = (page: Page) => page.getByRole('group', { name: /^Single line/ });

async function fileOf(page: Page, button: string): Promise<Buffer> {
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: button, exact: true }).click(),
  ]);
  return readFileSync(await download.path());
}

test('a wrong transfer switch doubles the bond: seen on the drawing, mended by its proposal, drawn for paper', async ({
  page,
}) => {
  await comeInAs(page, 'Dana');
  await openJob(page, 'Fernhollow veterinary practice');

  await test.step('as it is, every mode has one bond', async () => {
    await goTo(page, 'Wiring');
    await expect(drawing(page)).toBeVisible();
    for (const mode of ['On grid', 'Island', 'Generator port', 'Maintenance bypass'])
      await expect(modeCell(page, mode, 'one bond')).toBeVisible();
    await expect(drawing(page).getByRole('button', { name: /^unit 6/ })).toBeVisible();
  });

  await test.step('a transfer device that does not switch the neutral', async () => {
    await goTo(page, 'Stack');
    await page
      .getByLabel('Transfer device', { exact: true })
      .selectOption('Sample backup interface 200 A split-phase');
    await saved(page);
    await goTo(page, 'Wiring');
    await expect(drawing(page).getByRole('button', { name: /^transfer device/ })).toBeVisible();
    await modeCell(page, 'Island', '2 bonds').click();
    // The way that makes it so is inked: from the grid through the device to the board.
    await expect(drawing(page).locator('path[stroke="var(--touch)"]')).not.toHaveCount(0);
  });

  await test.step('the finding says the way, and opens from the part', async () => {
    await drawing(page)
      .getByRole('button', { name: /^Backup output, 12 circuits/ })
      .press('Enter');
    const found = page.getByRole('button', { name: /Neutral of Backup output has 2 neutral–earth bonds/ });
    await expect(found.first()).toContainText('the earthed neutral of the utility');
    await found.first().click();
    await expect(page.getByRole('dialog')).toContainText(
      'Every contact that is closed in this mode is followed',
    );
    await page.keyboard.press('Escape');
  });

  await test.step('the proposal mends it', async () => {
    const mend = page.getByRole('listitem').filter({ hasText: 'Set the neutral–earth relay of Stack off' });
    await expect(mend).toContainText('none after it');
    await mend.getByRole('button', { name: 'Take it' }).click();
    await expect(modeCell(page, 'Island', 'one bond')).toBeVisible();
    await expect(page.getByRole('region', { name: 'Ways to mend' })).toHaveCount(0);
  });

  await test.step('the drawing as SVG, DXF and PDF', async () => {
    await saved(page);
    const svg = (await fileOf(page, 'SVG')).toString('utf8');
    new XMLParser().parse(svg);
    for (const word of ['Fernhollow veterinary practice', 'Dana Wells', 'Island', 'transfer device'])
      expect(svg).toContain(word);
    expect((await fileOf(page, 'DXF')).toString('utf8')).toContain('transfer device');
    const link = page.getByRole('link', { name: 'PDF', exact: true });
    const pdf = await page.request.get((await link.getAttribute('href')) ?? '');
    expect(pdf.headers()['content-type']).toBe('application/pdf');
    expect((await pdf.body()).subarray(0, 5).toString()).toBe('%PDF-');
  });

  await test.step('back as it was', async () => {
    await page.getByRole('button', { name: /^Undo/ }).click();
    await expect(modeCell(page, 'Island', '2 bonds')).toBeVisible();
    await page.getByRole('button', { name: /^Undo/ }).click();
    await expect(modeCell(page, 'Island', 'one bond')).toBeVisible();
    await saved(page);
  });
});

test('a floating set is found and bonded; a device is picked on the drawing and typed in its row', async ({
  page,
}) => {
  await comeInAs(page, 'Dana');
  await openJob(page, 'Tern Rock field station');
  await goTo(page, 'Wiring');
  await modeCell(page, 'Generator by transfer switch', 'floats').click();
  await page
    .getByRole('listitem')
    .filter({ hasText: 'Bond the neutral of Hand-started set to its frame' })
    .getByRole('button', { name: 'Take it' })
    .click();
  await expect(modeCell(page, 'Generator by transfer switch', 'one bond')).toBeVisible();
  await page.getByLabel('Find', { exact: true }).fill('isolator');
  await page.getByLabel('Find', { exact: true }).press('Enter');
  await expect(page.getByRole('region', { name: 'Picked: grid isolator' })).toBeVisible();
  // A type brings its rating; without one it is typed.
  await page.getByLabel('Type: grid isolator').selectOption('not known');
  const rating = page.getByLabel('Rating in A: grid isolator');
  await rating.fill('40');
  await rating.press('Tab');
  await expect(drawing(page).getByRole('button', { name: 'isolator, 40 A' })).toBeVisible();
  await expect(page.getByLabel('Fitted: grid isolator')).toHaveValue('yes');
  for (const _ of [1, 2, 3]) await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(modeCell(page, 'Generator by transfer switch', 'floats')).toBeVisible();
  await saved(page);
});

test('losing a unit is a question of its own: what remains, or limits', async ({ page }) => {
  await comeInAs(page, 'Dana');
  await openJob(page, 'Tern Rock field station');
  await goTo(page, 'Stack');
  const loss = page.getByRole('region', { name: 'When one inverter is lost' });
  await expect(loss).toContainText('The set stops as a whole, by its type');
  await loss.getByLabel('Must it be survived').selectOption('yes: every limit holds without it');
  await expect(
    loss.getByRole('button', { name: /stops as a whole when one of its units is lost/ }),
  ).toBeVisible();
  await page.getByRole('button', { name: /^Undo/ }).click();
  await saved(page);
});

test('a breaker that the inverters cannot trip is seen, with what protects instead', async ({ page }) => {
  await comeInAs(page, 'Dana');
  await openJob(page, 'Tern Rock field station');
  await goTo(page, 'Wiring');
  const faults = page.getByRole('region', { name: 'Fault protection' });
  const row = faults.getByRole('row').filter({ hasText: 'Galley' });
  await page.getByLabel('Device type of Galley').selectOption('not known');
  await row.getByRole('link', { name: 'rating not known' }).first().click();
  await page.getByLabel('Device rating of Galley, A').fill('16');
  await page.getByLabel('Curve of Galley').selectOption('C');
  await page.getByLabel('Cable size of Galley, mm²').fill('2.5');
  await page.getByLabel('Cable length of Galley, m').fill('15');
  await page.getByLabel('Cable length of Galley, m').press('Tab');
  // Two units of 3 kVA: 2 · 3000 · 2 / 1.05 / 230 = 49.7 A for 60 ms; a C16 needs 160 A, and lets 80 A pass.
  await expect(row).toContainText('does not trip, 49.7 A for 60 ms');
  await expect(faults).toContainText('earth faults: a residual-current device of type A');
});

test('a symbol of the single line is moved by hand, by button and by key, kept over a reload, and goes back', async ({
  page,
}) => {
  await comeInAs(page, 'Dana');
  await openJob(page, 'Tern Rock field station');
  await goTo(page, 'Wiring');
  const unit = drawing(page).getByRole('button', { name: /^unit 2/ });
  const left = async (): Promise<number> => Number(await unit.locator('rect.hit').getAttribute('x'));
  const top = async (): Promise<number> => Number(await unit.locator('rect.hit').getAttribute('y'));
  await unit.click();
  const [fromX, fromY] = [await left(), await top()];
  await page.getByRole('button', { name: 'Move right' }).click();
  await expect.poll(left).toBeCloseTo(fromX + 10, 6);
  await unit.focus();
  await page.keyboard.press('Alt+ArrowDown');
  await expect.poll(top).toBeCloseTo(fromY + 10, 6);
  await saved(page);
  await page.reload();
  await expect.poll(left).toBeCloseTo(fromX + 10, 6);
  await unit.click();
  await page.getByRole('button', { name: 'Back to its place' }).click();
  await expect.poll(left).toBeCloseTo(fromX, 6);
  await expect.poll(top).toBeCloseTo(fromY, 6);
  await saved(page);
});
