import { execFileSync } from 'node:child_process';
import { expect, type Page, test } from '@playwright/test';
import { comeInAs, openJob, saved } from './workbench.ts';

const sheet = (page: Page, name: string) =>
  page.getByRole('navigation', { name: 'Sheets of the site' }).getByRole('link', { name });
const findings = (page: Page) => page.getByRole('region', { name: 'Findings about the wall' });
const unit = (page: Page, number: number) =>
  page.getByRole('button', { name: new RegExp(`^Unit ${number},`) });

test('a unit hung too near its neighbour is found, moved by keyboard and by pointer, and drilled for', async ({
  page,
}) => {
  await comeInAs(page, 'Dana');
  await openJob(page, 'Fernhollow veterinary practice');
  await sheet(page, 'Wall plan').click();
  // Unit 5 ends at 2.78 + 0.46 = 3.24 m, unit 6 begins at 3.32 m: 0.08 m where 0.2 m are asked for.
  await expect(findings(page)).toContainText('Unit 6: 0.08 m to Unit 5 (left), and its type asks for 0.2 m.');
  await unit(page, 6).focus();
  for (let press = 0; press < 3; press += 1) await page.keyboard.press('ArrowRight');
  await expect(unit(page, 6)).toHaveAccessibleName(/left edge 3.47 m/);
  await expect(findings(page)).not.toContainText('Unit 6: 0.08 m to Unit 5');
  await expect(findings(page)).not.toContainText('to Unit 5 (left)');

  const box = await unit(page, 1).boundingBox();
  if (box === null) throw new Error('Unit 1 is not on the screen.');
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2 + 30, box.y + box.height / 2 + 60, { steps: 6 });
  await page.mouse.up();
  await expect(unit(page, 1)).not.toHaveAccessibleName(/left edge 0.3 m, lower edge 1.55 m/);
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(unit(page, 1)).toHaveAccessibleName(/left edge 0.3 m, lower edge 1.55 m/);

  await unit(page, 6).click();
  await page.getByRole('textbox', { name: 'Left edge' }).fill('3.5');
  await page.getByRole('textbox', { name: 'Left edge' }).press('Enter');
  await expect(unit(page, 6)).toHaveAccessibleName(/left edge 3.5 m/);
  await saved(page);

  const href = await page.getByRole('link', { name: /1:1 on A4/ }).getAttribute('href');
  const pdf = await page.request.get(href ?? '');
  const text = execFileSync('pdftotext', ['-layout', '-', '-'], { input: await pdf.body() }).toString();
  for (const words of ['This bar must measure 100 mm', 'Left end of the plant-room wall', 'Unit 6', '3560'])
    expect(text).toContain(words);
});

test('a field electrician ticks the delivery with a note and a photo, on a phone', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await comeInAs(page, 'Femi');
  await page.getByRole('link', { name: 'Tern Rock field station' }).click();
  await sheet(page, 'Delivery').click();
  const first = page.getByRole('listitem').filter({ hasText: 'unit 1 of' });
  await first.getByRole('radio', { name: 'Damaged' }).click();
  await first.getByLabel('Note').fill('Corner crushed');
  await first.getByLabel('Note').press('Enter');
  await expect(page.getByText('1 damaged or missing')).toBeVisible();
  const picture = await page.screenshot();
  const chooser = first.getByLabel(/^Photo of/);
  await chooser.setInputFiles({ name: 'note.txt', mimeType: 'text/plain', buffer: Buffer.from('hello') });
  await expect(
    first.getByText('note.txt is not a JPEG, PNG or WebP picture, so it was not kept.'),
  ).toBeVisible();
  await chooser.setInputFiles({ name: 'corner.png', mimeType: 'image/png', buffer: picture });
  await first.getByRole('button', { name: 'Photo 1, larger' }).click();
  await expect(page.getByRole('img', { name: 'As taken on site' })).toBeVisible();
  await page.keyboard.press('Escape');
  await saved(page);
  await page.reload();
  await expect(first.getByLabel('Note')).toHaveValue('Corner crushed');
  await expect(first.getByRole('button', { name: 'Photo 1, larger' })).toBeVisible();
  const wide = await page.evaluate(() => document.documentElement.scrollWidth);
  expect(wide).toBeLessThanOrEqual(390);
});
