import AxeBuilder from '@axe-core/playwright';
import { expect, type Page, test } from '@playwright/test';
import { comeInAs, passGates } from './workbench.ts';

const SCREENS = [
  'site',
  'site/wall',
  'site/delivery',
  'loads',
  'partitions',
  'compare',
  'stack',
  'wiring',
  'wiring/terminations',
  'wiring/links',
  'wiring/read-back',
  'wiring/built',
  'test/capture',
  'test/faults',
  'test/site',
  'limits',
  'rehearse',
  'test',
] as const;
const RULES = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'];

/** The dark theme has other colours and nothing else: only what is about colour is asked again. */
const COLOUR_RULES = ['color-contrast', 'link-in-text-block'];

type Theme = 'light' | 'dark';

async function expectNoBarriers(page: Page, screen: string, theme: Theme): Promise<void> {
  const axe = new AxeBuilder({ page });
  const { violations } = await (
    theme === 'light' ? axe.withTags(RULES) : axe.withRules(COLOUR_RULES)
  ).analyze();
  const told = violations.map(
    (one) =>
      `${screen}: ${one.id}: ${one.help}: ${one.nodes
        .map((node) => node.target.join(' '))
        .slice(0, 3)
        .join(', ')}`,
  );
  expect(told).toEqual([]);
}

/** What is folded away is looked at too. */
const openFolds = (page: Page): Promise<void> =>
  page.evaluate(() =>
    document.querySelectorAll('main details').forEach((fold) => ((fold as HTMLDetailsElement).open = true)),
  );

/** The frame stands: pages scroll inside of it, so that a jump to a field never carries the header away. */
async function expectStillFrame(page: Page, screen: string): Promise<void> {
  const beyond = await page.evaluate(() => document.documentElement.scrollHeight - window.innerHeight);
  expect(beyond, screen).toBeLessThanOrEqual(0);
}

for (const theme of ['light', 'dark'] as const) {
  test(`every screen is free of known barriers in the ${theme} theme`, async ({ page }) => {
    // Nearly a dozen screens, each walked through by every rule.
    test.setTimeout(300_000);
    await page.addInitScript((wanted) => localStorage.setItem('bastion.theme', wanted), theme);
    await page.goto('/');
    await expect(page.getByRole('button', { name: /Continue as Dana/ })).toBeVisible();
    await expectNoBarriers(page, 'sign-in', theme);
    await comeInAs(page, 'Dana');
    await expectNoBarriers(page, 'jobs', theme);
    for (const screen of SCREENS) {
      await page.goto(`/jobs/1/${screen}`);
      await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
      await expect(page.locator('main h2').first()).toBeAttached();
      await openFolds(page);
      await expectNoBarriers(page, screen, theme);
      await expectStillFrame(page, screen);
    }
    await page.goto('/catalogue/hybrid-5k-1ph');
    await expect(page.getByRole('heading', { name: 'AC output' })).toBeVisible();
    await expectNoBarriers(page, 'catalogue', theme);
    await page.getByRole('button', { name: 'Duplicate' }).click();
    await page.getByLabel('Rated power').fill('60000');
    await page.getByRole('button', { name: 'Keep this type' }).click();
    await expect(page.getByRole('alert')).toBeVisible();
    await expectNoBarriers(page, 'data sheet', theme);
    await expectStillFrame(page, 'data sheet');
    await page.goto('/jobs/1/limits');
    await page.getByRole('button', { name: /Cold pickup, Island/ }).click();
    await expectNoBarriers(page, 'working', theme);
    await page.goto('/jobs/1/test');
    await page.getByRole('button', { name: 'Start a run' }).click();
    await passGates(page);
    await page.getByRole('button', { name: /island with no load/ }).click();
    await page.getByLabel('Transfer time').fill('99');
    await page.getByLabel('Transfer time').press('Enter');
    await expect(page.getByText('Outside what is expected')).toBeVisible();
    await expectNoBarriers(page, 'test step', theme);
  });
}

/** How far the page itself could be pushed sideways: wide tables scroll inside of themselves. */
const sideways = (page: Page): Promise<number> =>
  page.evaluate(() =>
    Math.max(
      ...[document.documentElement, ...document.querySelectorAll('main')].map(
        (one) => one.scrollWidth - one.clientWidth,
      ),
    ),
  );

// 640 is a desk at 200 %.
test('no page scrolls sideways on a phone, on a tablet or enlarged', async ({ page }) => {
  test.setTimeout(360_000);
  await comeInAs(page, 'Femi');
  await page.goto('/jobs/1/test');
  await page
    .getByRole('button', { name: /Open run|Start a run/ })
    .first()
    .click();
  await expect(page.getByRole('article')).toBeVisible();
  const run = page.url();
  const wide: string[] = [];
  for (const path of [
    '/',
    run,
    ...SCREENS.map((screen) => `/jobs/1/${screen}`),
    '/catalogue/hybrid-5k-1ph',
  ]) {
    await page.goto(path);
    await expect(page.locator('main h2, main tbody tr').first()).toBeAttached();
    await openFolds(page);
    for (const width of [390, 640, 768, 1024]) {
      await page.setViewportSize({ width, height: 844 });
      // Charts and the table take the new width in a frame of their own. A browser that draws to no screen may owe one for ever.
      await page.evaluate(
        () =>
          new Promise((done) => {
            requestAnimationFrame(() => requestAnimationFrame(done));
            setTimeout(done, 2000);
          }),
      );
      const by = await sideways(page);
      if (by > 0) wide.push(`${path} at ${width}: ${by}`);
    }
  }
  expect(wide).toEqual([]);
});
