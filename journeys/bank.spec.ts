import { expect, type Page, test } from '@playwright/test';
import { comeInAs, goTo, openJob, saved } from './workbench.ts';

const bank = (page: Page) => page.getByRole('region', { name: /^Battery bank of/ });
const sharing = (page: Page) =>
  page.getByRole('complementary', { name: 'Headroom' }).getByRole('region', { name: 'Module sharing' });

test('a daisy chain taken off at one end shares badly, and is mended by a proposal', async ({ page }) => {
  await comeInAs(page, 'Dana');
  await openJob(page, 'Tern Rock field station');
  await goTo(page, 'Stack');
  await expect(sharing(page)).toContainText('over');
  await expect(
    bank(page).getByRole('button', { name: /^Module 1: .*\+21.0 % from the mean.*over/ }),
  ).toBeVisible();

  await test.step('a longer lead moves all currents', async () => {
    const lead = page.getByLabel('Lead, module to module, one pole');
    await lead.fill('1.2');
    await lead.press('Enter');
    // 2 · (1.2 · 0.87195 + 0.2) = 2.49268 mΩ beside 22: 24.4927 ∥ 22 = 11.5898; 14.0824 ∥ 22 = 8.5865; 11.0792: 4 · 11.0792 / 33.0792
    await expect(
      bank(page).getByRole('button', { name: /^Module 1: .*\+34.0 % from the mean/ }),
    ).toBeVisible();
    await page.getByRole('button', { name: /^Undo/ }).click();
    await expect(
      bank(page).getByRole('button', { name: /^Module 1: .*\+21.0 % from the mean/ }),
    ).toBeVisible();
  });

  await test.step('a typed load, and one that the bank cannot give', async () => {
    await bank(page).getByRole('radio', { name: 'Typed load' }).click();
    await bank(page).getByLabel('Load on the AC side').fill('200000');
    await expect(bank(page).getByRole('alert')).toContainText('is the most it can');
    await bank(page).getByRole('radio', { name: 'Largest start' }).click();
    await expect(bank(page).getByRole('alert')).toHaveCount(0);
    await bank(page).getByRole('radio', { name: 'Continuous load' }).click();
  });

  await bank(page)
    .getByRole('button', { name: /^Take it: Take the chain off at opposite ends/ })
    .click();
  await expect(sharing(page)).not.toContainText('over');
  await expect(page.getByLabel('How the modules are joined')).toHaveValue('chain-diagonal');
  await expect(bank(page).getByRole('button', { name: /^Module 1: .*within/ })).toBeVisible();
  await saved(page);
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(sharing(page)).toContainText('over');
  await saved(page);
});
