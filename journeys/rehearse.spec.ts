import { compile, type Design, plantKey, plantsOf, readDesign, SAMPLE_TYPES } from '@bastion/core';
import { expect, type Page, test } from '@playwright/test';
import { z } from 'zod';
import { comeInAs, goTo, openJob, saved } from './workbench.ts';

async function opened(page: Page): Promise<Design> {
  const [, jobId = ''] = /jobs\/(\d+)/u.exec(page.url()) ?? [];
  const answer = z
    .object({ document: z.unknown() })
    .parse(await (await page.request.get(`/api/jobs/${jobId}`)).json());
  const read = readDesign(answer.document, SAMPLE_TYPES);
  if (!read.ok) throw new Error(read.problems[0]?.message);
  return read.value;
}

/** The figures that were played in the browser are to the last bit those that a server makes of the same design. */
async function keysByServer(page: Page): Promise<string[]> {
  const design = await opened(page);
  const sets = plantsOf(compile(design, SAMPLE_TYPES));
  return (design.rehearsals ?? []).map(({ stackId }) => {
    const plant = sets.find(({ compiled }) => compiled.stack.id === stackId)?.plant;
    return plant?.known === true ? plantKey(plant.value) : 'not known';
  });
}
const keysAsKept = async (page: Page): Promise<string[]> =>
  ((await opened(page)).rehearsals ?? []).map((kept) => kept.plantKey);

test('an outage is rehearsed: the first seconds, its hours, many nights, and the worst of them', async ({
  page,
}) => {
  await comeInAs(page, 'Dana');
  await openJob(page, 'Quillback boatyard workshop');
  await goTo(page, 'Rehearse');
  await page.getByLabel('Grid goes at, h').fill('25');
  await expect(page.getByText('The outage begins between 0 and 24 h.')).toBeVisible();
  await page.getByLabel('Grid goes at, h').fill('18');
  await page.getByLabel('Lasts, h').fill('30');
  const verdict = page.getByRole('status');
  await expect(
    verdict.filter({ hasText: /Dark after 3\.\d+ h, at 21:\d\d: the bank is empty/ }),
  ).toBeVisible();
  await page.getByLabel('Bank begins').selectOption('full');
  await expect(verdict.filter({ hasText: /Dark after 7\.\d+ h/ })).toBeVisible();
  await page.getByText('As a table').click();
  await expect(page.getByRole('region', { name: 'Hour by hour' }).getByRole('row')).toHaveCount(31);

  // Kept, and laid under the next one: half of a clear sky more or less is seen in both.
  await page.getByRole('button', { name: 'Keep this run to compare' }).click();
  await page.getByLabel('Bank begins').selectOption('reserve');
  await expect(
    page.getByText(/^Kept run: Quillback boatyard workshop, Boatyard stack, revision \d+/),
  ).toContainText(/Dark after 7\.\d+ h/);
  await expect(verdict.filter({ hasText: /Dark after 3\.\d+ h/ })).toBeVisible();
  await expect(page.getByRole('row', { name: /^Carried for 3\.\d+ h 7\.\d+ h/ })).toBeVisible();
  await page.getByRole('button', { name: 'Let it go' }).click();
  await expect(page.getByText(/^Kept run/)).toHaveCount(0);
  await page.getByLabel('Bank begins').selectOption('full');

  // Energy for an hour is no outage carried where a load drops out before the first minute is over.
  await page.getByLabel('Lasts, h').fill('1');
  await expect(
    verdict.filter({ hasText: /The energy lasts to its end.*but in the first seconds: Work place/ }),
  ).toBeVisible();

  await page.getByRole('tab', { name: 'The first seconds' }).click();
  await expect(page.getByRole('list', { name: 'Events' })).toContainText('Network rack (Office) drops out');

  await page.getByLabel('One start in island, while everything else runs').selectOption({ index: 1 });
  await expect(page.getByRole('region', { name: /^Start of / }).getByRole('row')).not.toHaveCount(0);

  // One ruler from milliseconds to days, by keyboard: the gap, then minutes, then the end.
  const ruler = page.getByRole('slider', { name: 'Time since the grid went' });
  await page.getByRole('button', { name: 'First 0.2 s' }).click();
  await page.getByRole('button', { name: 'Event after' }).click();
  await expect(ruler).toHaveAttribute('aria-valuetext', /^20 ms after the grid went\. .*drops out/);
  const lanes = page.getByRole('region', { name: 'Ruler' });
  await expect(lanes).toContainText('L1 0 %, L2 0 %');
  await ruler.press('End');
  await expect(ruler).toHaveAttribute('aria-valuetext', /^60 min after the grid went/);
  await ruler.press('-');
  await ruler.press('Home');
  await expect(ruler).toHaveAttribute('aria-valuetext', '0 ms after the grid went. The grid goes.');

  await page.getByRole('tab', { name: 'Many nights' }).click();
  await page.getByLabel('How long outages last').selectOption('Cut by rota');
  await page.getByLabel('Outages', { exact: true }).fill('2000');
  await page.getByRole('button', { name: 'Play them' }).click();
  await expect(page.getByText(/of 2,000 outages are carried to their end/)).toBeVisible();
  await expect(page.getByRole('row', { name: /One module more/ })).toBeVisible();
  // What was played stays while another stage is looked at.
  await goTo(page, 'Stack');
  await goTo(page, 'Rehearse');
  await page.getByRole('tab', { name: 'Many nights' }).click();
  await expect(page.getByText(/2,000 outages, cut by rota, seed 1/)).toBeVisible();
  // Kept in the job, it is there for whoever opens it, and tells when the design has moved on.
  await page.getByRole('button', { name: 'Keep them in the job' }).click();
  const inJob = page.getByRole('region', { name: 'Kept in the job' });
  await expect(inJob).toContainText('2,000 outages, cut by rota, seed 1, from a full bank');
  await expect(inJob).toContainText('the figures it was played from stand');
  await saved(page);
  // Keeping is no change of what was played.
  await expect(page.getByText('The design has moved on since these were played')).toHaveCount(0);
  await saved(page);
  expect(await keysByServer(page)).toEqual(await keysAsKept(page));
  const paper = await page.request.get(
    (await inJob.getByRole('link', { name: 'PDF' }).getAttribute('href')) ?? '',
  );
  expect(paper.headers()['content-type']).toBe('application/pdf');
  await page.reload();
  await page.getByRole('tab', { name: 'Many nights' }).click();
  await inJob.getByRole('button', { name: 'Play it again' }).click();
  await expect(page.getByLabel('How long outages last')).toHaveValue('rota');
  await page.getByRole('button', { name: 'Play them' }).click();
  await expect(page.getByText(/2,000 outages, cut by rota, seed 1/).first()).toBeVisible();
  await goTo(page, 'Stack');
  await page.getByLabel('Backup reserve').fill('55');
  await page.getByLabel('Backup reserve').press('Enter');
  await saved(page);
  await goTo(page, 'Rehearse');
  await expect(inJob).toContainText('the design has moved on since');
  await inJob.getByRole('button', { name: 'Let it go' }).click();
  await expect(inJob).toContainText('Nothing yet');
  await goTo(page, 'Stack');
  await page.getByLabel('Backup reserve').fill('50');
  await page.getByLabel('Backup reserve').press('Enter');
  await saved(page);
  await goTo(page, 'Rehearse');
  await page.getByRole('tab', { name: 'Many nights' }).click();
  await page.getByRole('button', { name: 'Play them' }).click();
  await expect(page.getByRole('img', { name: /^State of charge over \d+ hours as bands/ })).toBeVisible();
  await page.getByRole('region', { name: 'The worst nights' }).getByRole('button').first().click();
  await expect(verdict.filter({ hasText: /Dark after/ })).toBeVisible();
  // Any other by its number, also by keyboard.
  await page.getByRole('tab', { name: 'Many nights' }).click();
  await page.getByLabel('Any of them, by its number').fill('17');
  await page.getByLabel('Any of them, by its number').press('Enter');
  await expect(page.getByText('Night 17 of many.')).toBeVisible();
});
