import { execFileSync } from 'node:child_process';
import { expect, type Page, test } from '@playwright/test';
import { comeInAs, openJob } from './workbench.ts';

/** The text of a page as it comes out of the printer, page by page. */
async function onPaper(page: Page): Promise<string[]> {
  const pdf = await page.pdf({ format: 'A4', preferCSSPageSize: true });
  const text = execFileSync('pdftotext', ['-layout', '-', '-'], { input: pdf }).toString();
  return text.split('\f').filter((one) => one.trim() !== '');
}

test('what is printed is whole: every page with job, revision and number, the wall with all marks, the test with all steps', async ({
  page,
}) => {
  const name = 'Fernhollow veterinary practice';
  await comeInAs(page, 'Dana');
  await openJob(page, name);
  const jobId = /jobs\/(\d+)/.exec(page.url())?.[1] ?? '';
  const print = async (stage: string, ready: string): Promise<string> => {
    await page.goto(`/jobs/${jobId}/${stage}`);
    await expect(page.getByText(ready).first()).toBeVisible();
    const pages = await onPaper(page);
    pages.forEach((text, at) => {
      expect(text).toContain(name);
      expect(text).toMatch(/revision \d+/);
      expect(text).toMatch(new RegExp(`${at + 1} ?/ ?${pages.length}\\b`));
    });
    return pages.join('\n');
  };

  const wall = await print('site/wall', 'Drilling marks');
  const count = Number(/Drilling marks: (\d+) holes/.exec(wall)?.[1]);
  expect(count).toBeGreaterThan(20);
  // Four holes to each unit and module, each with its place.
  expect(wall.match(/^\s*(Unit|Module) \d+\s+\d+\s+\d+\s+\d+\s*$/gm)).toHaveLength(count);

  const test = await print('test', 'Start a run');
  const steps = Number(/(\d+) steps/.exec(test)?.[1]);
  const numbered = [...test.matchAll(/^\s*(\d+)\. /gm)].map(([, number]) => Number(number));
  expect(numbered.filter((number, at) => number === at + 1)).toHaveLength(steps);
  expect(test).toMatch(/Abort: /);

  const loads = await print('loads', 'Vaccine fridges');
  for (const words of ['Car charger', 'Isolation ward heating', 'Expected']) expect(loads).toContain(words);

  const delivery = await print('site/delivery', 'In the boxes');
  for (const words of ['Ready', 'Damaged', 'Missing', 'Torque screwdriver'])
    expect(delivery).toContain(words);
});

test('what is half typed survives a reload', async ({ page }) => {
  await comeInAs(page, 'Dana');
  await openJob(page, 'Tern Rock field station');
  const jobId = /jobs\/(\d+)/.exec(page.url())?.[1] ?? '';
  await page.goto(`/jobs/${jobId}/loads`);
  await page.getByRole('rowheader').first().click();
  await page.getByLabel('Measured current, A').fill('7,5');
  await page.reload();
  await page.getByRole('rowheader').first().click();
  await expect(page.getByLabel('Measured current, A')).toHaveValue('7,5');
  await page.goto(`/jobs/${jobId}/site`);
  await page.getByLabel('Altitude', { exact: true }).fill('777');
  await page.reload();
  await expect(page.getByLabel('Altitude', { exact: true })).toHaveValue('777');
});
