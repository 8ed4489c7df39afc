import { expect, type Page, test } from '@playwright/test';
import { comeInAs, goTo, openJob, passGates, phoneOf } from './workbench.ts';

/** A confirmation or a figure, taken the way a thumb does it. */
async function take(page: Page, label: string, figure: string): Promise<void> {
  await page.getByLabel(label).fill(figure);
  await page.getByLabel(label).press('Enter');
}

test('the test on a phone goes on through dead minutes, over a closed page, and to an abort', async ({
  browser,
  baseURL,
}) => {
  const phone = await phoneOf(browser, baseURL);
  const page = await phone.newPage();
  await comeInAs(page, 'Femi');
  await openJob(page, 'Tern Rock field station');
  await goTo(page, 'Islanding test');
  await page.getByRole('button', { name: 'Start a run' }).click();
  await expect(page.getByText(/Run \d+, running/)).toBeVisible();
  await passGates(page);
  await page.getByRole('button', { name: /island with no load/ }).click();

  await test.step('without a connection readings count at once, are judged, and survive going on', async () => {
    await phone.setOffline(true);
    await take(page, 'Voltage L1 to neutral', '229');
    await expect(page.getByText('1 reading waits on this device')).toBeVisible();
    await take(page, 'Transfer time', '26');
    await expect(page.getByText('2 readings wait on this device')).toBeVisible();
    await expect(page.getByRole('alert').filter({ hasText: 'Outside what is expected' })).toBeVisible();
    await page.getByRole('button', { name: 'Next step' }).click();
    await page.getByRole('button', { name: 'Step before' }).click();
    await expect(page.getByLabel('Voltage L1 to neutral')).toHaveValue('229');
    // A correction of what has not arrived yet waits behind it.
    await take(page, 'Transfer time', '18.5');
    await expect(page.getByText('3 readings wait on this device')).toBeVisible();
    await page.getByRole('button', { name: 'Finish the test' }).click();
    await page.getByRole('button', { name: 'Finish', exact: true }).click();
    await expect(page.getByText('3 readings of this run are not with the server yet')).toBeVisible();
    await page.keyboard.press('Escape');
  });

  const address = page.url();
  await page.close();
  await phone.setOffline(false);
  const again = await phone.newPage();
  await test.step('the next visit sends them, each once and in order', async () => {
    await again.goto(address);
    await expect(again.getByText(/Run \d+, running/)).toBeVisible();
    await expect(again.getByText(/on this device/)).toHaveCount(0);
    const id = new URL(address).searchParams.get('run') ?? '';
    const run = (await (await again.request.get(`/api/runs/${id}`)).json()) as {
      readings: { readingId: string; value: number; corrects: number | null; id: number }[];
    };
    const taken = run.readings.filter(({ value }) => [229, 26, 18.5].includes(value));
    expect(taken.map(({ value }) => value)).toEqual([229, 26, 18.5]);
    expect(taken[2]?.corrects).toBe(taken[1]?.id);
  });

  await test.step('another person on the same phone sees none of it, and the run is aborted by name', async () => {
    await again.getByRole('button', { name: 'Abort the test' }).click();
    await again.getByLabel('Reason').fill('Wind too strong on the ladder');
    await again.getByRole('button', { name: 'Abort', exact: true }).click();
    await expect(again.getByText(/Run \d+, aborted/)).toBeVisible();
    const wide = await again.evaluate(() => [document.documentElement.scrollWidth, window.innerWidth]);
    expect(wide[0]).toBeLessThanOrEqual(wide[1] ?? 0);
  });
});

test('what a designer leaves unsent waits for the designer, and both values are asked about', async ({
  browser,
  baseURL,
}) => {
  const options = baseURL === undefined ? {} : { baseURL };
  const own = await browser.newContext(options);
  const page = await own.newPage();
  await comeInAs(page, 'Dana');
  await page.getByLabel('Name of a new job').fill('Cove Hut');
  await page.getByRole('button', { name: 'Start empty' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Cove Hut' })).toBeVisible();
  const address = page.url();
  const altitude = (where: Page) => where.getByLabel('Altitude', { exact: true });
  await own.setOffline(true);
  await altitude(page).fill('40');
  await page.getByLabel('Service rating, each line', { exact: true }).fill('63');
  await page.getByLabel('Service rating, each line', { exact: true }).press('Enter');
  await expect(page.getByRole('status').filter({ hasText: 'Kept on this device' })).toBeVisible();
  await page.close();
  await own.setOffline(false);

  await test.step('somebody else changes the same place meanwhile', async () => {
    const other = await (await browser.newContext(options)).newPage();
    await comeInAs(other, 'Noor');
    await other.goto(address);
    await altitude(other).fill('75');
    await altitude(other).press('Enter');
    await expect(other.getByRole('status').filter({ hasText: /^Saved$/ })).toBeVisible();
  });

  await test.step('a viewer on the same device neither sends nor deletes it', async () => {
    const viewer = await own.newPage();
    await viewer.goto('/');
    await viewer.getByRole('button', { name: 'Sign out' }).click();
    await comeInAs(viewer, 'Vic');
    await viewer.goto(address);
    await expect(altitude(viewer)).toHaveValue('75');
    await viewer.getByRole('button', { name: 'Sign out' }).click();
    await viewer.close();
  });

  await test.step('back again, both values are asked about, and the rest is sent', async () => {
    const back = await own.newPage();
    await comeInAs(back, 'Dana');
    await back.goto(address);
    const asked = back.getByRole('alertdialog');
    await expect(asked).toContainText('75');
    await expect(asked).toContainText('40');
    await asked.getByRole('button', { name: 'Keep mine' }).click();
    await expect(back.getByRole('status').filter({ hasText: /^Saved$/ })).toBeVisible();
    await expect(altitude(back)).toHaveValue('40');
    await back.reload();
    await expect(altitude(back)).toHaveValue('40');
    await expect(back.getByLabel('Service rating, each line', { exact: true })).toHaveValue('63');
  });
});
