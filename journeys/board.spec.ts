import { expect, type Page, test } from '@playwright/test';
import { comeInAs, goTo, openJob, saved } from './workbench.ts';

const chip = (page: Page, name: string) => page.getByRole('button', { name: new RegExp(`^${name},`) });
const headroom = (page: Page) => page.getByRole('complementary', { name: 'Headroom' });
const advice = (page: Page) => page.getByRole('region', { name: 'Advice' });
const strips = (page: Page, title: string) =>
  headroom(page).getByRole('region', { name: title, exact: true });

/** A variant of its own, so that the sample job stays as it is for others. */
async function inVariant(page: Page, job: string, name: string): Promise<void> {
  await comeInAs(page, 'Dana');
  await openJob(page, job);
  await page.getByRole('button', { name: /^Variant/ }).click();
  await page.getByRole('menuitem', { name: 'Take a variant…' }).click();
  await page.getByLabel('Name of the variant').fill(name);
  await page.getByRole('button', { name: 'Take the variant' }).click();
  await expect(page.getByRole('button', { name: `Variant: ${name}` })).toBeVisible();
}

test('circuits are chosen together, pushed between boards, and put on shed stages', async ({ page }) => {
  await inVariant(page, 'Fernhollow veterinary practice', 'Shed stages');
  await goTo(page, 'Partitions');
  await page.getByRole('button', { name: 'Shed stage', exact: true }).click();
  const shed = page.getByRole('region', { name: 'Shed stage', exact: true });
  await expect(shed).toContainText('(stage 1)');
  await chip(page, 'Autoclave').focus();
  await page.keyboard.press(' ');
  await chip(page, 'Laboratory').click({ modifiers: ['Control'] });
  await expect(page.getByText('2 circuits chosen')).toBeVisible();
  await chip(page, 'Laboratory').focus();
  await page.keyboard.press('ArrowRight');
  await expect(shed.getByRole('button', { name: /^Autoclave,/ })).toBeVisible();
  await expect(shed.getByRole('button', { name: /^Laboratory,/ })).toBeFocused();
  await page.getByRole('button', { name: 'See these start together' }).click();
  await expect(
    headroom(page)
      .getByText(/Starts together 2/)
      .first(),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Choose none' }).click();
  await shed.getByRole('button', { name: 'Settings of Shed stage' }).click();
  await page.getByLabel('Shed', { exact: true }).selectOption('below-soc');
  await page.getByLabel('Below state of charge').fill('40');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
  await saved(page);
  await expect(headroom(page).getByText('Surge against the overload curve')).toBeVisible();
});

test('a balance proposal is looked at, accepted in part, undone and accepted whole', async ({ page }) => {
  await inVariant(page, 'Fernhollow veterinary practice', 'Balanced');
  await goTo(page, 'Partitions');
  await page.getByRole('button', { name: 'Balance the lines' }).click();
  const tradeOff = page.getByRole('table', { name: 'Most loaded line by number of moves' });
  await expect(tradeOff).toContainText('As it is: 0 moves');
  await expect(advice(page)).toContainText('every one has been accounted for');
  await tradeOff.getByRole('button', { name: /6 moves/ }).click();
  await expect(chip(page, 'Laboratory')).toHaveAccessibleName(/proposed: L1/);
  await advice(page).getByLabel('Laboratory: L3 to L1').uncheck();
  await page.getByRole('button', { name: 'Accept 5 of 6' }).click();
  await expect(chip(page, 'Laboratory')).toHaveAccessibleName(/, L3,/);
  await expect(chip(page, 'Vaccine fridges')).toHaveAccessibleName(/, L2,/);
  await page.getByRole('button', { name: /^Undo: Stack: 6 moves/ }).click();
  await expect(chip(page, 'Vaccine fridges')).toHaveAccessibleName(/, L1,/);
  await page.getByRole('button', { name: 'Balance the lines' }).click();
  await page.getByRole('button', { name: 'Accept', exact: true }).click();
  await saved(page);
  await page.getByRole('button', { name: 'Balance the lines' }).click();
  await expect(advice(page)).toContainText(/As it is: 0 moves|no other assignment/);
});

test('staggered starts mend a cold pickup that is over, and go into the test', async ({ page }) => {
  await inVariant(page, 'Fernhollow veterinary practice', 'Staggered');
  await goTo(page, 'Partitions');
  // The X-ray alone is too much for any delay; without it, the autoclave on L3 brings 18.3 + 1.9 kVA onto 19 kVA.
  await chip(page, 'X-ray').focus();
  await page.keyboard.press('ArrowLeft');
  await chip(page, 'Autoclave').focus();
  await page.keyboard.press('3');
  await expect(strips(page, 'Cold pickup').getByRole('button', { name: /L3/ })).toContainText('over');
  await page.getByRole('button', { name: 'Stagger the starts' }).click();
  await expect(advice(page)).toContainText('Order after supply returns');
  await page.getByRole('button', { name: 'Accept', exact: true }).click();
  await expect(strips(page, 'Staggered pickup')).toContainText('left');
  await expect(strips(page, 'Staggered pickup')).not.toContainText('over');
  await saved(page);
  await goTo(page, 'Islanding test');
  await page.getByRole('button', { name: 'Start a run' }).click();
  await expect(page.getByRole('button', { name: /pickup/i }).first()).toBeVisible();
});

test('whole-building backup shows what follows before it is applied, and variants are compared', async ({
  page,
}) => {
  await inVariant(page, 'Fernhollow veterinary practice', 'Whole building');
  await goTo(page, 'Partitions');
  await page.getByRole('button', { name: 'Back up the whole building…' }).click();
  await expect(advice(page)).toContainText('4 circuits to Backup output.');
  await expect(advice(page).getByRole('row', { name: /Circuits backed up 12 16/ })).toBeVisible();
  await page.getByRole('button', { name: 'Accept', exact: true }).click();
  await saved(page);
  await page.getByRole('button', { name: 'Variant: Whole building' }).click();
  await page.getByRole('menuitem', { name: 'Compare side by side' }).click();
  await expect(page.getByRole('columnheader', { name: 'Main' })).toBeVisible();
  await expect(page.getByRole('row', { name: /differs: Backed up/ })).toContainText('16 circuits');
  await page.getByRole('link', { name: 'Main' }).click();
  await goTo(page, 'Partitions');
  await expect(
    page.getByRole('region', { name: 'Grid side' }).getByRole('button', { name: /^Water heater,/ }),
  ).toBeVisible();
});

test('what to back up is proposed by importance, and says which limit stops the next circuit', async ({
  page,
}) => {
  await comeInAs(page, 'Dana');
  await openJob(page, 'Quillback boatyard workshop');
  await goTo(page, 'Partitions');
  await page.getByRole('button', { name: 'Choose what to back up' }).click();
  await expect(page.getByRole('button', { name: /^Accept|Close/ })).toBeVisible();
  await expect(advice(page)).toContainText(/stop/);
});

test('advice that cannot be run says so, and can be asked for again', async ({ page }) => {
  await comeInAs(page, 'Dana');
  await openJob(page, 'Quillback boatyard workshop');
  await goTo(page, 'Partitions');
  await page.route(/advice\.worker/, (route) => route.abort());
  await page.getByRole('button', { name: 'Stagger the starts' }).click();
  await expect(page.getByRole('alert')).toContainText('could not be run');
  await page.unroute(/advice\.worker/);
  await page.getByRole('button', { name: 'Stagger the starts' }).click();
  await expect(page.getByRole('button', { name: /^Accept|Close/ })).toBeVisible();
});
