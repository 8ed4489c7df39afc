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

  await test.step('one lead is picked in the picture and typed there', async () => {
    await bank(page)
      .getByRole('button', { name: /^Lead from module 2 to 3: 0.6 m/ })
      .press('Enter');
    const own = page.getByLabel('This lead, one pole');
    await expect(own).toBeFocused();
    await page.keyboard.type('1.8');
    await expect(bank(page).getByRole('button', { name: /^Lead from module 2 to 3: 1.8 m/ })).toBeVisible();
    await expect(bank(page).getByRole('button', { name: /^Lead from module 1 to 2: 0.6 m/ })).toBeVisible();
    await page.keyboard.press('Escape');
    await expect(own).toHaveCount(0);
    await page.getByRole('button', { name: /^Undo/ }).click();
    await expect(bank(page).getByRole('button', { name: /^Lead from module 2 to 3: 0.6 m/ })).toBeVisible();
  });

  await test.step('a module of another type is solved with the others, and told', async () => {
    await bank(page).getByText('Modules and inverters one by one').click();
    const types = bank(page).getByLabel('Its type');
    await types.nth(3).selectOption('Sample 48 V 200 Ah sealed lead-acid string');
    await expect(
      page.getByRole('button', {
        name: /over Battery bank of Hut stack has modules of 2 nominal voltages on it/,
      }),
    ).toBeVisible();
    await page.getByRole('button', { name: /^Undo/ }).click();
  });

  await test.step('losing a unit leaves the other to draw all of it', async () => {
    await page.getByRole('radio', { name: /Lost: unit 1/ }).click();
    const inverters = bank(page).getByRole('group', { name: 'The bank as it lies' });
    await expect(inverters.getByText('lost', { exact: true })).toBeVisible();
    await page.getByRole('radio', { name: 'Island' }).click();
    await expect(inverters.getByText('lost', { exact: true })).toHaveCount(0);
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

test('inverters that must not share get a bank each, and the hardest-working one is looked at', async ({
  page,
}) => {
  await comeInAs(page, 'Dana');
  await openJob(page, 'Tern Rock field station');
  await goTo(page, 'Stack');
  await page
    .getByLabel('Inverters on this bank', { exact: true })
    .selectOption('one: each has a bank like it');
  await expect(
    page.getByRole('button', { name: /over Battery bank of Hut stack.*each unit has a bank of its own/ }),
  ).toBeVisible();
  await expect(bank(page)).toContainText('Each of the 2 inverters has a bank like this one.');
  const shown = bank(page).getByRole('group', { name: 'The bank as it lies' });
  // Both give half of the load; the longer lead of unit 2 costs a little more.
  await expect(shown.getByText('Unit 2', { exact: true })).toBeVisible();
  await expect(shown.getByText('Unit 1', { exact: true })).toHaveCount(0);
  await bank(page).getByLabel('Bank that is shown').selectOption('unit 1');
  await expect(shown.getByText('Unit 1', { exact: true })).toBeVisible();
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(bank(page)).not.toContainText('has a bank like this one');
  await saved(page);
});
