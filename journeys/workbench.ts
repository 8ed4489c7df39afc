import { type Browser, type BrowserContext, expect, type Locator, type Page } from '@playwright/test';

/** Comes in as one of the demo people and sees the jobs. */
export async function comeInAs(page: Page, name: string): Promise<void> {
  await page.goto('/');
  await page.getByRole('button', { name: new RegExp(`Continue as ${name}`) }).click();
  await expect(page.getByRole('heading', { name: 'Jobs' })).toBeVisible();
}

/** A browser as small as a phone, with a store of its own. */
export const phoneOf = (browser: Browser, baseURL: string | undefined): Promise<BrowserContext> =>
  browser.newContext({
    viewport: { width: 390, height: 844 },
    ...(baseURL === undefined ? {} : { baseURL }),
  });

export async function openJob(page: Page, name: string): Promise<void> {
  await page.getByRole('link', { name, exact: true }).click();
  await expect(page.getByRole('heading', { level: 1, name })).toBeVisible();
}

export const goTo = (page: Page, stage: string): Promise<void> =>
  page
    .getByRole('navigation', { name: 'Stages' })
    .getByRole('link', { name: new RegExp(stage) })
    .click();

/** Waits until what was typed is with the server. */
export async function saved(page: Page): Promise<void> {
  await expect(page.getByRole('status').filter({ hasText: /^Saved/ })).toBeVisible();
}

/** The cell of the survey table in the row with this name. */
export function cell(page: Page, rowName: string, column: number): Locator {
  return page
    .getByRole('row')
    .filter({ has: page.getByRole('rowheader', { name: rowName, exact: true }) })
    .locator('td')
    .nth(column);
}

/** Types into a cell the way a person does: go there, type, Enter. */
export async function typeIn(page: Page, target: Locator, text: string): Promise<void> {
  await target.click();
  await page.keyboard.press('Enter');
  const editor = target.locator('input');
  await editor.fill(text);
  await page.keyboard.press('Enter');
}

/** Picks from the list of a cell. */
export async function pickIn(page: Page, target: Locator, value: string): Promise<void> {
  await target.click();
  await page.keyboard.press('Enter');
  await target.locator('select').selectOption(value);
  await page.keyboard.press('Enter');
}

/** Pastes text into a place the way a person does: go there, paste. */
export async function paste(page: Page, target: Locator, text: string): Promise<void> {
  await target.focus();
  await page.evaluate((content) => {
    const clipboardData = new DataTransfer();
    clipboardData.setData('text/plain', content);
    document.activeElement?.dispatchEvent(
      new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }),
    );
  }, text);
}

/** Takes every gate of the run that is open, as somebody who has done all of it would record it; what is over is accepted in writing. */
export async function passGates(page: Page): Promise<void> {
  await expect(page.getByText(/Run \d+, running/)).toBeVisible();
  const jobId = /jobs\/(\d+)/.exec(page.url())?.[1] ?? '';
  const runs = (await (await page.request.get(`/api/jobs/${jobId}/runs`)).json()) as { id: number }[];
  const runId = runs[0]?.id ?? 0;
  const run = (await (await page.request.get(`/api/runs/${runId}`)).json()) as {
    procedure: {
      steps: {
        id: string;
        section: string;
        readings: {
          id: string;
          kind: string;
          nominal?: number;
          expected?: { low?: number; high?: number };
        }[];
      }[];
    };
  };
  for (const step of run.procedure.steps.filter(({ section }) => section === 'gates'))
    for (const reading of step.readings) {
      const isOpenLimit = reading.id === 'limits-open';
      const value =
        reading.kind === 'confirmation'
          ? 1
          : (reading.nominal ?? reading.expected?.low ?? reading.expected?.high ?? 1);
      const answer = await page.request.post(`/api/runs/${runId}/readings`, {
        data: {
          stepId: step.id,
          readingId: reading.id,
          value: isOpenLimit ? 1 : value,
          attempt: 1,
          ...(isOpenLimit ? { note: 'Accepted in writing for this test' } : {}),
        },
      });
      expect(answer.ok()).toBe(true);
    }
  await page.reload();
  await expect(page.getByText(/Run \d+, running/)).toBeVisible();
}
