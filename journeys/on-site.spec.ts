import { expect, test } from '@playwright/test';
import { comeInAs, goTo, openJob, phoneOf, saved } from './workbench.ts';

test('on a phone: a pair reads wrong, a setting is read back, and what was built otherwise shows what it changes', async ({
  browser,
  baseURL,
}) => {
  const phone = await phoneOf(browser, baseURL);
  const page = await phone.newPage();
  await comeInAs(page, 'Femi');
  await openJob(page, 'Tern Rock field station');
  await goTo(page, 'Wiring');

  await page.getByRole('tab', { name: 'Comms' }).click();
  await page.getByRole('link', { name: 'On site, cable by cable' }).click();
  await page.getByLabel('Cable', { exact: true }).selectOption({ index: 0 });
  await page.getByRole('button', { name: 'Made, tugged' }).click();
  const idle = page.getByLabel(/^Idle voltage on the pair/);
  await idle.fill('1.2');
  await idle.press('Enter');
  await expect(page.getByText(/outside of 3.8 to 5 V/)).toBeVisible();
  await saved(page);

  await page.getByRole('link', { name: 'Back to the drawing' }).click();
  await page.getByRole('tab', { name: 'Settings' }).click();
  await page.getByRole('link', { name: 'On site, device by device' }).click();
  const frequency = page.getByLabel(/^Read back: Output frequency of unit 1/);
  await frequency.fill('60');
  await frequency.press('Enter');
  await expect(page.getByText('differs: 50 Hz is wanted')).toBeVisible();
  await frequency.fill('50 Hz');
  await frequency.press('Enter');
  await expect(page.getByText('as wanted').first()).toBeVisible();
  await saved(page);

  await page.getByRole('link', { name: 'Back to the drawing' }).click();
  await page.getByRole('tab', { name: 'As built' }).click();
  await page.getByRole('link', { name: 'On site, part by part' }).click();
  await page.getByLabel('Part or cable', { exact: true }).selectOption({ label: 'Borehole pump: 0 of 2' });
  const size = page.getByLabel(/^As built: size of Borehole pump/);
  await size.fill('1');
  await size.press('Enter');
  await expect(page.getByRole('status').filter({ hasText: 'differs from the design' })).toBeVisible();
  await expect(page.getByRole('region', { name: 'What it changes' })).toContainText('One figure differs');
  // A field electrician notes it; taking it into the design is the designer's.
  await expect(page.getByRole('button', { name: 'Take it into the design' })).toHaveCount(0);
  await saved(page);

  const office = await browser.newContext(baseURL === undefined ? {} : { baseURL });
  const desk = await office.newPage();
  await comeInAs(desk, 'Dana');
  await openJob(desk, 'Tern Rock field station');
  await goTo(desk, 'Wiring');
  await desk.getByRole('tab', { name: 'As built' }).click();
  await desk.getByRole('link', { name: 'On site, part by part' }).click();
  await desk.getByRole('button', { name: 'Take it into the design' }).click();
  await expect(desk.getByRole('region', { name: 'What it changes' })).toHaveCount(0);
  await saved(desk);
  await desk.getByRole('button', { name: /^Undo/ }).click();
  await expect(desk.getByRole('region', { name: 'What it changes' })).toBeVisible();
  await saved(desk);
});

test('a bus that is bunched and swapped is found where its cable is described', async ({ page }) => {
  await comeInAs(page, 'Dana');
  await openJob(page, 'Fernhollow veterinary practice');
  await goTo(page, 'Wiring');
  await page.getByRole('tab', { name: 'Comms' }).click();
  await page
    .getByRole('row', { name: /battery bus unit 1 BAT/ })
    .getByRole('button')
    .first()
    .click();
  await page.getByLabel('Polarity end to end').selectOption({ label: 'exchanged' });
  await expect(page.getByText(/its \+ and − are exchanged between the ends/).first()).toBeVisible();
  await page.getByLabel('Polarity end to end').selectOption({ label: '+ to +, − to −' });
  await expect(page.getByText(/are exchanged between the ends/)).toHaveCount(0);
});
