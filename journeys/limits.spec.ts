import { expect, type Page, test } from '@playwright/test';
import { comeInAs, goTo, openJob, saved } from './workbench.ts';

const causes = (page: Page) => page.getByRole('region', { name: 'Verdict and causes' });

test('causes are mended one by one, or accepted by the approver with a reason', async ({ page }) => {
  await test.step('the designer takes a mend with its effect before it', async () => {
    await comeInAs(page, 'Dana');
    await openJob(page, 'Quillback boatyard workshop');
    await goTo(page, 'Limits');
    await expect(causes(page).getByRole('status').first()).toContainText('things are over');
    await causes(page)
      .getByRole('button', { name: /Grid port current/ })
      .click();
    const mend = causes(page)
      .getByRole('listitem')
      .filter({ hasText: /^Charge with \d+ W a unit from the grid/ });
    await expect(mend).toContainText('Then');
    await mend.getByRole('button', { name: 'Take it' }).click();
    await saved(page);
    await expect(causes(page).getByRole('button', { name: /over.*Grid port current/ })).toHaveCount(0);
    // A role that does not accept has no form for it.
    await expect(causes(page).getByRole('button', { name: 'Accept', exact: true })).toHaveCount(0);
  });

  await test.step('where no edit helps, it says who decides', async () => {
    await causes(page)
      .getByRole('button', { name: /Exposure/ })
      .click();
    await expect(causes(page)).toContainText('only the building, the site or the customer can decide');
  });

  await test.step('the approver accepts it by name, with a reason', async () => {
    await page.context().clearCookies();
    await comeInAs(page, 'Ana');
    await openJob(page, 'Quillback boatyard workshop');
    await goTo(page, 'Limits');
    await causes(page)
      .getByRole('button', { name: /Transfer time against sensitive loads/ })
      .click();
    await page
      .getByLabel(/^Reason for which Ana Prieto takes responsibility/)
      .fill('The office has its own supply');
    await page.getByRole('button', { name: 'Accept', exact: true }).click();
    await saved(page);
    await expect(causes(page)).toContainText('accepted by Ana Prieto');
    await expect(causes(page).getByRole('status').first()).toContainText('accepted by name');
  });

  await test.step('the gate of the test names it', async () => {
    await page.context().clearCookies();
    await comeInAs(page, 'Femi');
    await openJob(page, 'Quillback boatyard workshop');
    await goTo(page, 'Islanding test');
    await page.getByRole('button', { name: 'Start a run' }).click();
    await expect(page.getByText(/Accepted by Ana Prieto \(The office has its own supply\)/)).toBeVisible();
  });
});

test('everything is found from the keyboard', async ({ page }) => {
  await comeInAs(page, 'Dana');
  await openJob(page, 'Fernhollow veterinary practice');
  await page.keyboard.press('Control+k');
  await page.keyboard.type('dental air');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/loads#field=circuits/);
  await page.keyboard.press('Alt+6');
  await expect(page.getByRole('heading', { name: 'Limits' })).toBeVisible();
  await page.keyboard.press('Control+k');
  await page.keyboard.type('cause string');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('dialog')).toContainText('String voltage in the cold');
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+k');
  await page.keyboard.type('generator port');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('radio', { name: /Generator port$/ })).toBeChecked();

  await test.step('Back closes a working, and comes back to it from the field it led to', async () => {
    await goTo(page, 'Limits');
    await page
      .getByRole('button', { name: /^Continuous load on the line, Island:/ })
      .first()
      .click();
    const working = page.getByRole('dialog');
    await working.getByRole('link').first().click();
    await expect(working).toHaveCount(0);
    await page.goBack();
    await expect(working).toBeVisible();
    await page.goBack();
    await expect(working).toHaveCount(0);
    await expect(page).toHaveURL(/limits/);
  });
});
