import { expect, test } from '@playwright/test';
import { comeInAs, goTo, openJob, passGates } from './workbench.ts';

/** A capture of 0.5 s at 10 kHz: the grid until 205 ms, nothing for some time, then the inverter. */
function capture(gapMs: number): Buffer {
  const rows = Array.from({ length: 5000 }, (_, at) => {
    const ms = at / 10;
    const isLive = ms < 205 || ms >= 205 + gapMs;
    const volts = isLive ? 230 * Math.SQRT2 * Math.sin((2 * Math.PI * 50 * ms) / 1000) : 0;
    return `${ms.toFixed(1)},${volts.toFixed(2)}`;
  });
  return Buffer.from(`t [ms],L1 (V)\n${rows.join('\n')}\n`);
}

test('a capture is measured without a ruler, and its figures become readings of the test', async ({
  page,
}) => {
  await comeInAs(page, 'Dana');
  await openJob(page, 'Tern Rock field station');
  await goTo(page, 'Islanding test');
  await page.getByRole('link', { name: 'Measure a capture' }).click();
  const pick = page.getByLabel(/A .cff, a .cfg/);

  await pick.setInputFiles({
    name: 'broken.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('t,V\n0,1\n1,high\n'),
  });
  await expect(page.getByRole('status').filter({ hasText: 'is no number' })).toBeVisible();

  await pick.setInputFiles({ name: 'slow.csv', mimeType: 'text/csv', buffer: capture(35) });
  const gap = page.getByRole('row', { name: /^Gap without voltage/ });
  await expect(gap).toContainText('at most 20 ms');
  await expect(gap.getByText('over')).toBeVisible();
  await expect(page.getByText('Radio link (Instruments), which bears 20 ms')).toBeVisible();

  await page.getByRole('link', { name: 'Back to the test' }).click();
  await page.getByRole('button', { name: 'Start a run' }).click();
  await expect(page.getByText(/Run \d+, running/)).toBeVisible();
  await passGates(page);
  await page.getByRole('button', { name: /island with no load/i }).click();
  await page.getByRole('button', { name: 'Readings from a capture' }).click();
  await page
    .getByRole('dialog')
    .getByLabel(/A .cff, a .cfg/)
    .setInputFiles({ name: 'transfer.csv', mimeType: 'text/csv', buffer: capture(12) });
  const offer = page.getByRole('dialog').getByRole('listitem').filter({ hasText: 'Transfer time' });
  await expect(offer).toContainText(/1[12]\.\d* ms|12 ms/);
  await offer.getByRole('button', { name: 'Take it' }).click();
  await expect(page.getByRole('dialog').getByText('Transfer time: taken.')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByLabel('Transfer time')).toHaveValue(/^1[12]/);

  await test.step('the capture is kept with the reading, and opens from it as it was', async () => {
    await expect(page.getByText('From the capture transfer.csv.')).toBeVisible();
    await page.getByRole('link', { name: 'Open it as it was' }).click();
    await page.getByRole('button', { name: 'Open the capture that was kept' }).click();
    await expect(page.getByText('transfer.csv')).toBeVisible();
    await expect(page.getByRole('region', { name: 'What is measured' })).toBeVisible();
  });
});

test('a rehearsed transfer is written as a record that reads back', async ({ page }) => {
  await comeInAs(page, 'Dana');
  await openJob(page, 'Quillback boatyard workshop');
  await goTo(page, 'Rehearse');
  await page.getByRole('tab', { name: /first seconds/i }).click();
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'As a waveform record' }).click();
  const path = await (await download).path();
  await goTo(page, 'Islanding test');
  await page.getByRole('link', { name: 'Measure a capture' }).click();
  await page.getByLabel(/A .cff, a .cfg/).setInputFiles({
    name: 'rehearsed.cff',
    mimeType: 'application/octet-stream',
    buffer: await import('node:fs').then(({ readFileSync }) => readFileSync(path)),
  });
  await expect(page.getByText(/Quillback boatyard workshop rehearsed/)).toBeVisible();
  await expect(page.getByRole('row', { name: /^Gap without voltage/ }).first()).toBeVisible();
});

test('a lost battery is found by halving its bus, and the path survives a reload', async ({ page }) => {
  await comeInAs(page, 'Femi');
  await openJob(page, 'Tern Rock field station');
  await goTo(page, 'Islanding test');
  await page.getByRole('link', { name: 'Find a fault' }).click();
  await page
    .getByLabel('What is seen')
    .selectOption({ label: 'The inverter reports that it does not hear its battery' });
  const next = page.getByRole('region', { name: 'Next measurement' });
  await expect(next).toContainText('3.8 to 5 V');
  await next.getByRole('button', { name: 'Otherwise' }).click();
  await page.reload();
  await expect(page.getByRole('region', { name: 'Measured so far' })).toContainText('not 3.8 to 5 V');
  for (let asked = 0; asked < 4 && (await next.isVisible()); asked += 1)
    await next.getByRole('button', { name: 'As expected' }).click();
  await expect(page.getByText('Left to mend')).toBeVisible();
  await expect(page.getByRole('region', { name: 'What may be wrong' }).getByRole('listitem')).toHaveCount(2);
});
