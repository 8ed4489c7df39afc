import { expect, test } from '@playwright/test';
import { comeInAs, goTo, openJob, phoneOf, saved } from './workbench.ts';

test('terminations are ticked on a phone without a connection, the torque is judged at once, and the desk sees them', async ({
  browser,
  baseURL,
}) => {
  const phone = await phoneOf(browser, baseURL);
  const page = await phone.newPage();
  await comeInAs(page, 'Femi');
  await openJob(page, 'Tern Rock field station');
  await goTo(page, 'Wiring');
  await page.getByRole('tab', { name: 'Terminations' }).click();
  await page.getByRole('link', { name: 'On site, port by port' }).click();
  await page.getByLabel('Port', { exact: true }).selectOption({ label: 'unit 1, battery port: 0 of 2' });
  const port = page.getByRole('region', { name: 'unit 1, battery port' });
  await expect(port).toContainText('the module itself stays live');
  await expect(port.getByRole('img', { name: 'unit 1, battery port: DC+ 50 mm², DC− 50 mm²' })).toBeVisible();
  await phone.setOffline(true);
  const plus = port.getByRole('listitem').filter({ hasText: 'DC+' });
  await plus.getByRole('button', { name: 'Landed, pulled' }).click();
  const torque = plus.getByLabel(/^Torque shown/);
  await torque.fill('3');
  await torque.press('Enter');
  await expect(plus.getByText(/too loose/)).toBeVisible();
  await expect(page.getByText('Kept on this device')).toBeVisible();
  await phone.setOffline(false);
  await saved(page);
  await expect(plus.getByText(/^Femi Okafor, /)).toBeVisible();

  const office = await browser.newContext(baseURL === undefined ? {} : { baseURL });
  const desk = await office.newPage();
  await comeInAs(desk, 'Dana');
  await openJob(desk, 'Tern Rock field station');
  await goTo(desk, 'Wiring');
  await desk.getByRole('tab', { name: 'Terminations' }).click();
  // A long schedule draws the rows in sight: the filter brings those of the port there.
  await desk.getByLabel('Filter Terminations').fill('unit 1, battery port');
  await expect(desk.getByRole('region', { name: 'Terminations' })).toContainText('landed, 3 Nm, Femi Okafor');
});
