import { readFileSync } from 'node:fs';
import { expect, type Page, test } from '@playwright/test';
import { comeInAs, goTo, openJob, saved } from './workbench.ts';

const RACK = 'Hazel rack module 51 V';
const form = (page: Page) => page.getByRole('form', { name: 'Data sheet: Battery' });

async function type(page: Page, figures: readonly (readonly [string, string])[]): Promise<void> {
  for (const [label, value] of figures)
    await form(page).getByLabel(label, { exact: false }).first().fill(value);
}

test('an own battery type: impossible figures refused, unusual ones asked about, versions told to the job', async ({
  page,
}) => {
  await comeInAs(page, 'Dana');
  await page.getByRole('link', { name: 'Catalogue' }).click();
  await page.getByRole('searchbox', { name: 'Find a type' }).fill('rack');
  await page.getByRole('link', { name: /Sample 51.2 V 100 Ah rack module/ }).click();
  await expect(page.getByText(/used in \d+ jobs?/).first()).toBeVisible();

  await test.step('a duplicate with a peak below its continuous current is refused at that figure', async () => {
    await page.getByRole('button', { name: 'Duplicate' }).click();
    await type(page, [
      ['Name', RACK],
      ['Continuous discharge', '250'],
    ]);
    await form(page).getByRole('button', { name: 'Keep this type' }).click();
    await expect(form(page).getByRole('alert')).toContainText(
      'Peak discharge must not be below the continuous discharge current',
    );
    await expect(form(page).getByRole('status')).toContainText('Nothing was kept');
    await expect(form(page).getByLabel('Peak discharge')).toBeFocused();
  });

  await test.step('250 A from 100 Ah is possible, and asked about', async () => {
    await type(page, [['Peak discharge', '300']]);
    await form(page).getByRole('button', { name: 'Keep this type' }).click();
    await expect(form(page).getByRole('status')).toContainText('unusual: confirm or correct first');
    await expect(
      form(page).getByText(/250 A from 100 Ah would empty it in less than half an hour/),
    ).toBeVisible();
    await type(page, [
      ['Continuous discharge', '80'],
      ['Peak discharge', '150'],
    ]);
    await form(page).getByRole('button', { name: 'Keep this type' }).click();
    await expect(page.getByRole('heading', { name: RACK })).toBeVisible();
    await expect(page.getByText(/own type, kept by Dana Wells, version 1; used in 0 jobs/)).toBeVisible();
  });

  const tern = async (): Promise<void> => {
    await page.getByRole('link', { name: 'Jobs', exact: true }).click();
    await openJob(page, 'Tern Rock field station');
    await goTo(page, 'Stack');
  };

  await test.step('a job uses it', async () => {
    await tern();
    await page.getByLabel('Battery type', { exact: true }).selectOption(RACK);
    await saved(page);
  });

  await test.step('a new version changes nothing in the job until somebody takes it', async () => {
    await page.getByRole('link', { name: 'Catalogue' }).click();
    await page.getByRole('link', { name: new RegExp(RACK) }).click();
    await expect(page.getByText(/version 1; used in 1 job\./)).toBeVisible();
    await page.getByRole('button', { name: 'Change it: next version' }).click();
    await type(page, [['Continuous discharge', '10']]);
    await form(page).getByRole('button', { name: 'Keep as version 2' }).click();
    await expect(page.getByText(/version 2; used in 1 job\./)).toBeVisible();
    await tern();
    const newer = page.getByRole('region', { name: 'Newer versions in the catalogue' });
    await expect(newer).toContainText('this job has version 1, the catalogue has version 2');
    const current = page
      .getByRole('complementary', { name: 'Headroom' })
      .getByRole('region', { name: 'Battery current at nominal voltage' });
    await expect(current).not.toContainText('over');
    await newer.getByRole('button', { name: 'What would change' }).click();
    await expect(newer).toContainText('Continuous discharge: 80 A → 10 A');
    await expect(newer).toContainText('Battery current at nominal voltage, Battery bank of Hut stack');
    await newer.getByRole('button', { name: 'Take version 2' }).click();
    await expect(newer).toHaveCount(0);
    await expect(current).toContainText('over');
    await page.getByRole('button', { name: /^Undo/ }).click();
    await expect(newer).toBeVisible();
    await page.getByLabel('Battery type', { exact: true }).selectOption('Sample 51.2 V 50 Ah wall module');
    await saved(page);
  });
});

test('types travel as files, and a file with a bad row is refused whole', async ({ page }) => {
  await comeInAs(page, 'Dana');
  await page.getByRole('link', { name: 'Catalogue' }).click();
  await page.getByRole('searchbox', { name: 'Find a type' }).fill('430');
  await page.getByRole('link', { name: /Sample PV module 430 W/ }).click();
  const download = async (name: 'JSON' | 'CSV'): Promise<string> => {
    const [file] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name, exact: true }).click(),
    ]);
    return readFileSync(await file.path(), 'utf8');
  };
  const bring = (name: string, text: string): Promise<void> =>
    page
      .getByLabel('File with types')
      .setInputFiles({ name, mimeType: 'text/plain', buffer: Buffer.from(text) });
  const sheet = await download('CSV');
  const file = await download('JSON');
  const aside = page.getByRole('complementary');

  await bring('bad.csv', sheet.replace('32.4', '42.4'));
  await expect(aside.getByRole('alert')).toContainText('row 2.vmpV must be below the open-circuit voltage');
  await bring('broken.json', file.slice(0, 40));
  await expect(aside.getByRole('alert')).toContainText('broken.json is not JSON');

  await bring(
    'own.csv',
    sheet.replace('pv-430w', 'hazel-roof').replace('Sample PV module 430 W', 'Hazel roof 430'),
  );
  const dialog = page.getByRole('dialog', { name: 'Types in this file' });
  await expect(dialog).toContainText('Hazel roof 430 PV module: new');
  await dialog.getByRole('button', { name: 'Keep one type' }).click();
  await expect(dialog).toHaveCount(0);
  await page.getByRole('searchbox', { name: 'Find a type' }).fill('hazel roof');
  await page.getByRole('link', { name: /Hazel roof 430/ }).click();
  await expect(page.getByText('own type, kept by Dana Wells, version 1')).toBeVisible();
  const own = await download('JSON');
  await bring('again.json', own);
  await expect(dialog).toContainText('already here, left alone');
  await page.keyboard.press('Escape');
  await bring('next.json', own.replace('"impA": 13.28', '"impA": 9'));
  await expect(dialog).toContainText('next version');
  await expect(dialog).toContainText('Look again: 430 W is not 32.4 V times 9 A');
  await expect(dialog.getByRole('button', { name: 'Keep one type' })).toBeDisabled();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Take out of the catalogue' }).click();
  await expect(page.getByRole('heading', { name: 'Choose a type' })).toBeVisible();
});

test('a string too long for the cold is shortened, and a roof on two inputs is told', async ({ page }) => {
  await comeInAs(page, 'Dana');
  await openJob(page, 'Fernhollow veterinary practice');
  await goTo(page, 'Stack');
  const pv = page.getByRole('region', { name: 'PV arrays' });
  // 12 · 38.8 · (1 + 0.0026 · 37) = 510.4 V of 500; 11: 467.9
  await expect(pv).toContainText('510 V open circuit at -12 °C; the input stands 500 V');
  const east = pv.getByRole('group', { name: 'East roof' });
  await east.getByLabel('Modules in a string').fill('11');
  await east.getByLabel('Modules in a string').press('Enter');
  await expect(east).toContainText('468 V open circuit at -12 °C of 500 V');
  await east.getByRole('button', { name: 'Plug strings into an input' }).click();
  await expect(east).toContainText('is on two inverters');
  await page.getByRole('button', { name: /^Undo/ }).click();
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(pv).toContainText('510 V open circuit');
  await saved(page);
});
