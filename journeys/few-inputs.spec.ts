import { expect, type Locator, test } from '@playwright/test';
import { comeInAs, goTo, saved } from './workbench.ts';

/** What a house of two units, four modules, eight circuits and a hand-started set may cost a person from the empty job on. */
const MOST_INPUTS = 60;

test('an empty job reaches its verdict in few inputs, and says what nobody has looked at yet', async ({
  page,
}) => {
  let inputs = 0;
  const click = async (target: Locator): Promise<void> => {
    inputs += 1;
    await target.click();
  };
  const type = async (label: string, text: string): Promise<void> => {
    inputs += 1;
    await page.getByLabel(label, { exact: true }).fill(text);
  };
  const choose = async (label: string, option: string): Promise<void> => {
    inputs += 1;
    await page.getByLabel(label, { exact: true }).selectOption(option);
  };
  const press = async (key: string): Promise<void> => {
    inputs += 1;
    await page.keyboard.press(key);
  };
  const stage = async (name: string): Promise<void> => {
    inputs += 1;
    await goTo(page, name);
  };

  await comeInAs(page, 'Dana');
  await type('Name of a new job', 'Pebble House');
  await choose('Supply and sizes', '230 V 50 Hz, single-phase, metric sizes');
  await click(page.getByRole('button', { name: 'Start empty' }));
  await expect(page.getByRole('heading', { level: 1, name: 'Pebble House' })).toBeVisible();

  await test.step('site: what only this house can say', async () => {
    await expect(page.getByLabel('Voltage, line to neutral', { exact: true })).toHaveValue('230');
    await expect(page.getByText('7 first values on this page')).toBeVisible();
    await type('Service rating, each line', '63');
    await choose('Earthing', 'TN-S: separate neutral and earth');
    await type('Hours the backed-up load should last', '6');
  });

  await test.step('eight circuits by the names of what hangs on them', async () => {
    await stage('Loads');
    await click(page.getByLabel('New circuit'));
    for (const name of ['Fridge', 'Freezer', 'Router', 'Lights', 'TV', 'Gas boiler', 'Kettle', 'Sockets']) {
      inputs += 1;
      await page.keyboard.type(name);
      await press('Enter');
    }
    await expect(page.getByText('8 circuits, 8 items')).toBeVisible();
    await expect(page.getByText(/first values on this page/)).toBeVisible();
  });

  await test.step('boards and stack in one step', async () => {
    await stage('Stack');
    await choose('Inverter type', 'Sample hybrid 5 kVA single-phase');
    await type('Units', '2');
    await choose('Battery type', 'Sample 51.2 V 100 Ah rack module');
    await type('Modules', '4');
    await choose('Generator type', 'Sample hand-started petrol set 4 kVA');
    await choose('Connection', 'Transfer switch ahead of the grid port');
    await choose('Loss of one inverter', 'need not be survived');
    await click(page.getByRole('button', { name: 'Set up boards and stack' }));
    await expect(page.getByRole('region', { name: 'Stack', exact: true })).toBeVisible();
  });

  await test.step('the verdict', async () => {
    await stage('Limits');
    await expect(page.getByText(/It rests on \d+ first values that nobody has looked at yet/)).toBeVisible();
    expect(inputs).toBeLessThanOrEqual(MOST_INPUTS);
  });
  test.info().annotations.push({ type: 'inputs', description: String(inputs) });

  await test.step('a figure that is typed is no first value any more; the rest is kept by the page', async () => {
    await goTo(page, 'Site');
    await page.getByLabel('Altitude', { exact: true }).fill('120');
    await expect(page.getByText('6 first values on this page')).toBeVisible();
    await page.getByRole('button', { name: 'First value. Keep Prospective fault current' }).click();
    await expect(page.getByText('5 first values on this page')).toBeVisible();
    await page.getByRole('button', { name: 'Keep all 5' }).click();
    await expect(page.getByText(/first values? on this page/)).toHaveCount(0);
    await page.getByRole('button', { name: /^Undo/ }).click();
    await expect(page.getByText('5 first values on this page')).toBeVisible();
    await saved(page);
  });
});
