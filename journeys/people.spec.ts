import { expect, test } from '@playwright/test';

const address = process.env.BASTION_FIRM_ADDRESS ?? '';
const code = process.env.BASTION_FIRM_CODE ?? '';
const PASSWORD = 'plover over mudflats';

test('the first administrator opens the firm with the printed code and invites a designer', async ({
  browser,
}) => {
  const office = await (await browser.newContext({ baseURL: address })).newPage();
  await test.step('nobody can come in, and no sample people are offered', async () => {
    await office.goto('/');
    await expect(office.getByRole('heading', { name: 'The first administrator' })).toBeVisible();
    await expect(office.getByText('Look around with sample data')).toHaveCount(0);
  });

  await test.step('a wrong code and a weak password are refused with a sentence', async () => {
    await office.getByLabel('Firm').fill('Gannet Power');
    await office.getByLabel('Your name').fill('Ida Berg');
    await office.getByLabel('Email').fill('ida@gannet.test');
    await office.getByLabel('Code from the start').fill('AAAA-BBBB-CCCC-DDDD');
    await office.getByLabel('Password').fill(PASSWORD);
    await office.getByRole('button', { name: 'Make the firm' }).click();
    await expect(office.getByRole('alert')).toContainText('not the code');
    await office.getByLabel('Code from the start').fill(code.toLowerCase());
    await office.getByLabel('Password').fill('password12');
    await office.getByRole('button', { name: 'Make the firm' }).click();
    await expect(office.getByRole('alert')).toContainText('tried first');
    await office.getByLabel('Password').fill(PASSWORD);
    await office.getByRole('button', { name: 'Make the firm' }).click();
    await expect(office.getByText('No jobs yet.')).toBeVisible();
  });

  let link = '';
  await test.step('a designer is invited by a link that is shown once', async () => {
    await office.getByRole('link', { name: 'People' }).click();
    const form = office.getByRole('form', { name: 'Invite somebody' });
    await form.getByLabel('Name').fill('Rui Costa');
    await form.getByLabel('Email').fill('rui@gannet.test');
    await form.getByLabel('Role').selectOption('designer');
    await form.getByRole('button', { name: 'Make the link' }).click();
    link = await office.getByRole('status', { name: 'One-time link' }).getByRole('textbox').inputValue();
    await expect(office.getByText('invited, not come in yet')).toBeVisible();
  });

  const desk = await (await browser.newContext({ baseURL: address })).newPage();
  await test.step('who follows it chooses a password, and designs', async () => {
    await desk.goto(link);
    await expect(desk.getByRole('heading', { name: 'Welcome to Gannet Power' })).toBeVisible();
    await desk.getByLabel('Password').fill('three grey seals');
    await desk.getByRole('button', { name: 'Come in' }).click();
    await desk.getByLabel('Name of a new job').fill('Shore Cabin');
    await desk.getByRole('button', { name: 'Start empty' }).click();
    await expect(desk.getByRole('heading', { level: 1, name: 'Shore Cabin' })).toBeVisible();
    await expect(desk.getByRole('link', { name: 'People' })).toHaveCount(0);
    const other = await (await browser.newContext({ baseURL: address })).newPage();
    await other.goto(link);
    await expect(other.getByRole('alert')).toContainText('has been used');
  });

  await test.step('disabled, the designer is out, also in the open window', async () => {
    await office.getByRole('button', { name: 'Disable Rui Costa' }).click();
    await expect(office.getByRole('region', { name: 'Audit trail' })).toContainText('changed a person');
    await expect(office.getByText(/entries are as they were written/)).toBeVisible();
    await expect(desk.getByRole('heading', { name: 'Sign in' })).toBeVisible();
    await desk.getByLabel('Email').fill('rui@gannet.test');
    await desk.getByLabel('Password').fill('three grey seals');
    await desk.getByRole('button', { name: 'Sign in' }).click();
    await expect(desk.getByRole('alert')).toContainText('do not belong together');
  });

  await test.step('the administrator cannot shut out the last one, and changes the own password', async () => {
    await office.getByRole('button', { name: 'Disable Ida Berg' }).click();
    await expect(office.getByRole('alert').first()).toContainText('needs one administrator');
    await office.getByRole('link', { name: 'Ida Berg, administrator' }).click();
    await office.getByLabel('Present password').fill(PASSWORD);
    await office.getByLabel('New password').fill('a heron at low tide');
    await office.getByRole('button', { name: 'Change it' }).click();
    await expect(office.getByText('Changed. Your other sessions have ended.')).toBeVisible();
    await expect(office.getByRole('region', { name: 'Sessions' })).toContainText('(this one)');
  });
});
