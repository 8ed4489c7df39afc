import { expect, type Page, test } from '@playwright/test';

/** What the focused element is called: by its label, or by what stands in it. */
const focusedName = (page: Page): Promise<string> =>
  page.evaluate(() => {
    const at = document.activeElement;
    if (!(at instanceof HTMLElement) || at === document.body || at.tagName === 'MAIN') return '';
    const labels =
      at instanceof HTMLInputElement || at instanceof HTMLSelectElement || at instanceof HTMLTextAreaElement
        ? [...(at.labels ?? [])].map((label) => label.innerText).join(' ')
        : '';
    return (at.getAttribute('aria-label') ?? (labels || at.innerText)).replace(/\s+/g, ' ').trim();
  });

/** A person without a mouse: goes from one thing to the next until the wanted one is in hand. */
function hands(page: Page) {
  let keys = 0;
  const press = async (key: string): Promise<void> => {
    keys += 1;
    await page.keyboard.press(key);
  };
  const tabTo = async (name: RegExp, most = 160): Promise<void> => {
    for (let tries = 0; tries < most; tries += 1) {
      if (name.test(await focusedName(page))) return;
      await press('Tab');
    }
    throw new Error(
      `${String(name)} was not reached in ${most} keys; in hand is "${await focusedName(page)}".`,
    );
  };
  return {
    press,
    tabTo,
    type: async (text: string): Promise<void> => {
      keys += text.length;
      await page.keyboard.type(text);
    },
    /** Chooses in a list by the beginning of its words. */
    choose: async (field: RegExp, words: string): Promise<void> => {
      await tabTo(field);
      keys += words.length;
      await page.keyboard.type(words, { delay: 20 });
    },
    go: async (stage: number): Promise<void> => press(`Alt+${stage}`),
    keys: () => keys,
  };
}

test('a whole job by keyboard alone: from coming in to a reading of the test', async ({ page }) => {
  const { press, tabTo, type, choose, go, keys } = hands(page);
  await page.goto('/');
  await expect(page.getByRole('button', { name: /Continue as Dana/ })).toBeVisible();
  await tabTo(/Continue as Dana/);
  await press('Enter');
  await expect(page.getByRole('heading', { name: 'Jobs' })).toBeVisible();

  await test.step('the job, with the supply of its region', async () => {
    await tabTo(/^Name of a new job/);
    await type('Keys only');
    await choose(/^Supply and sizes/, '230 V 50 Hz');
    await tabTo(/^Start empty/);
    await press('Enter');
    await expect(page.getByRole('heading', { level: 1, name: 'Keys only' })).toBeVisible();
    await expect(page.getByLabel('Voltage, line to neutral', { exact: true })).toHaveValue('230');
    await tabTo(/^Service rating/);
    await type('63');
    await tabTo(/^Hours the backed-up load/);
    await type('4');
    await press('Enter');
  });

  await test.step('loads', async () => {
    await go(2);
    await expect(page.getByRole('button', { name: 'Add the first circuit' })).toBeVisible();
    await tabTo(/^Add the first circuit/);
    await press('Enter');
    for (const name of ['Fridge', 'Lights', 'Router']) {
      await tabTo(/^New circuit/);
      await type(name);
      await press('Enter');
    }
    await expect(page.getByText(/[34] circuits, [34] items/)).toBeVisible();
  });

  await test.step('boards and stack', async () => {
    await go(4);
    await expect(page.getByRole('button', { name: 'Set up boards and stack' })).toBeVisible();
    await choose(/^Inverter type/, 'Sample hybrid 5 kVA single');
    await tabTo(/^Units/);
    await press('Control+a');
    await type('1');
    await choose(/^Battery type/, 'Sample 51.2 V 100');
    await tabTo(/^Modules/);
    await press('Control+a');
    await type('2');
    await tabTo(/^Set up boards and stack/);
    await press('Enter');
    await expect(page.getByRole('region', { name: 'Stack', exact: true })).toBeVisible();
  });

  await test.step('the palette leads to the limits; a cause is opened, and left again by Escape', async () => {
    await press('Control+k');
    await expect(page.getByRole('dialog')).toBeVisible();
    await type('limits');
    await press('Enter');
    await expect(page.getByRole('heading', { name: /^(Limits|Causes)/ }).first()).toBeVisible();
    await tabTo(/\b(over|not known|tight|open)\b/i);
    const before = await focusedName(page);
    await press('Enter');
    await press('Escape');
    expect(await focusedName(page)).toBe(before);
  });

  await test.step('undo and do again', async () => {
    await go(1);
    await expect(page.getByLabel('Altitude', { exact: true })).toBeVisible();
    await tabTo(/^Altitude/);
    await press('Control+a');
    await type('321');
    await press('Enter');
    await press('Escape');
    await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
    await press('Control+z');
    await expect(page.getByLabel('Altitude', { exact: true })).not.toHaveValue('321');
    await press('Control+Shift+z');
    await expect(page.getByLabel('Altitude', { exact: true })).toHaveValue('321');
  });

  await test.step('a run is started, and its first gate takes an answer', async () => {
    await expect(page.getByRole('status').filter({ hasText: /^Saved/ })).toBeVisible();
    await go(8);
    await expect(page.getByRole('button', { name: 'Start a run' })).toBeEnabled();
    await tabTo(/^Start a run/);
    await press('Enter');
    await expect(page.getByText(/Run 1, running/)).toBeVisible();
    await tabTo(/^Yes$/);
    await press('Enter');
    await expect(page.getByRole('button', { name: 'Yes', pressed: true })).toHaveCount(1);
  });
  test.info().annotations.push({ type: 'keys', description: String(keys()) });
});
