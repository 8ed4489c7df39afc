import { expect, test } from '@playwright/test';
import { comeInAs, openJob, phoneOf, saved } from './workbench.ts';

test('notes and photos without a connection outlive the window, arrive once, and stay their maker’s', async ({
  browser,
  baseURL,
}) => {
  const phone = await phoneOf(browser, baseURL);
  const page = await phone.newPage();
  await comeInAs(page, 'Femi');
  await openJob(page, 'Quillback boatyard workshop');
  const jobId = /jobs\/(\d+)/.exec(page.url())?.[1] ?? '';
  const address = `/jobs/${jobId}/site/delivery`;
  await page.goto(address);
  const line = page
    .getByRole('listitem')
    .filter({ hasText: /torque/i })
    .first();
  await expect(line).toBeVisible();

  await test.step('on a dead spot', async () => {
    const picture = await line.screenshot();
    await phone.setOffline(true);
    await line.getByRole('radio', { name: 'Missing' }).click();
    await line
      .getByLabel(/^Photo of/)
      .setInputFiles({ name: 'empty-case.png', mimeType: 'image/png', buffer: picture });
    await expect(line.getByText('on this device, not sent yet')).toBeVisible();
    await expect(page.getByText('Kept on this device')).toBeVisible();
  });

  await page.close();
  await phone.setOffline(false);
  const again = await phone.newPage();
  const same = again
    .getByRole('listitem')
    .filter({ hasText: /torque/i })
    .first();
  await test.step('the next visit sends them', async () => {
    await again.goto(address);
    await expect(same.getByRole('button', { name: 'Photo 1, larger' })).toBeVisible();
    await expect(same.getByRole('radio', { name: 'Missing' })).toBeChecked();
    await expect(same.getByText('on this device')).toHaveCount(0);
    await expect(same.getByText(/^Femi Okafor, /)).toBeVisible();
    await saved(again);
    const list = (await (await again.request.get(`/api/jobs/${jobId}/attachments`)).json()) as object[];
    expect(list).toHaveLength(1);
  });

  await test.step('a designer sees whose note it is, in the list of revisions as well, and brings back what was before', async () => {
    const office = await browser.newContext(baseURL === undefined ? {} : { baseURL });
    const desk = await office.newPage();
    await comeInAs(desk, 'Dana');
    await openJob(desk, 'Quillback boatyard workshop');
    await desk.keyboard.press('Control+k');
    await desk.keyboard.type('Earlier revisions');
    await desk.keyboard.press('Enter');
    await expect(desk.getByRole('row').filter({ hasText: 'Femi Okafor' }).first()).toContainText('in Site');
    await desk.getByRole('button', { name: 'Look at revision 1', exact: true }).click();
    await expect(desk.getByText('as it was then')).toBeVisible();
    await expect(desk.getByRole('button', { name: 'Undo' })).toHaveCount(0);
    await desk.getByRole('button', { name: 'To the latest' }).click();
    // The latest design is there again, and can be changed.
    await expect(desk.getByRole('button', { name: /^Undo/ })).toBeVisible();
    await expect(desk.getByText('as it was then')).toHaveCount(0);
    await desk.keyboard.press('Control+k');
    await desk.keyboard.type('Earlier revisions');
    await desk.keyboard.press('Enter');
    await desk.getByRole('button', { name: 'Bring revision 1 back', exact: true }).click();
    await expect(desk.getByText('Revision 1 is the latest design again')).toBeVisible();
    await desk.goto(address);
    await expect(
      desk
        .getByRole('listitem')
        .filter({ hasText: /torque/i })
        .first(),
    ).toBeVisible();
    await expect(desk.getByText(/^Femi Okafor, /)).toHaveCount(0);
    await office.close();
  });
  await phone.close();
});
