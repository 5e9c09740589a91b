/** Two boards: parts brought over, lent and owed, put on a new board, with the record that goes along. */
import { expect, type Page } from '@playwright/test';
import {
  gone,
  logOf,
  newJob,
  patient,
  record,
  seemsFine,
  shopOf,
  test,
  typeDay,
  uuid7,
  watchErrors,
} from './helpers.ts';

let errors: string[] = [];
test.beforeEach(({ page }) => {
  errors = watchErrors(page);
});
test.afterEach(() => expect(errors).toEqual([]));

const QUILLON = 'Quillon, 4 layers';
const boards = (page: Page) => page.getByRole('region', { name: 'Two boards' });
const over = (page: Page) => boards(page).getByRole('table', { name: 'What comes over' });
const place = (partId: string) => ({ x_mm: 1, y_mm: 1, side: 'top', partId });
const sign = (partId: string, is: string) => ({ type: 'observation', text: 'seen', sign: is, place: place(partId) });

const send = (page: Page, method: 'post' | 'put' | 'delete', path: string, data: object) => {
  const origin = shopOf(page);
  return page.request[method](`${origin}${path}`, { headers: { origin }, data });
};
const setOf = async (jobId: string) =>
  (await logOf(jobId)).flatMap(({ body }) => (body.type === 'set-parts' ? (body.items as object[]) : []));
/** Off its board, done by hand. */
const off = (partId: string) => {
  const runId = uuid7();
  const run = { runId, op: 'remove', methodId: 'air-slow', guide: null, offline: true, bench: false, partId };
  return [
    { type: 'set-at', partId },
    { type: 'run-begun', ...run },
    { type: 'run-ended', runId, outcome: 'finished' },
    {
      type: 'part-off',
      partId,
      fate: 'must live',
      place: 'tray 7',
      legs: ['Sn63Pb37'],
      heat: { peak_C: 233, dose: 0.21 },
    },
  ];
};

test('a board from the shelf stands beside this one, gives a part with one key, and its record goes along to the paper', async ({
  page,
}) => {
  const id = await newJob(page, { board: QUILLON, complaint: 'controller dead' });
  await record(page, id, sign('u4', 'burnt'));
  await page.goto(`/jobs/${id}/diagnose?set`);
  await boards(page).getByRole('button', { name: 'Parts from another board' }).click();
  await boards(page).getByPlaceholder('serial, if any').fill('Q-SHELF');
  await boards(page).getByRole('button', { name: 'Take it' }).click();
  await expect(page.getByTestId('donor-name')).toContainText('Q-SHELF');
  await expect(page.getByRole('application')).toHaveCount(2);
  await expect(boards(page)).toContainText('U4 is burnt');
  // three ways with their minutes, the least first
  await expect(page.getByTestId('way-bring')).toContainText(/about \d+ min/, { timeout: 120_000 });
  await expect(page.getByTestId(/^way-/).first()).toContainText('best');
  await expect(page.getByTestId('way-over')).toBeVisible();

  // one side, one view: a turn of one turns both
  await page.keyboard.press('f');
  await expect(page.getByRole('application', { name: /bottom side/ })).toHaveCount(2);
  await page.keyboard.press('f');
  await boards(page)
    .getByRole('button', { name: /^Bring U4/ })
    .click();
  await expect(over(page).getByRole('checkbox').first()).toBeChecked();
  const donor =
    (
      await boards(page)
        .getByRole('link', { name: /^No\. \d+/ })
        .getAttribute('href')
    )?.split('/')[2] ?? '';
  expect(await setOf(donor)).toMatchObject([{ partId: 'u4', do: 'move', to: { ticketId: id, partId: 'u4' } }]);
  await seemsFine(page, 'two boards');

  // it stays, after all; and comes again with the key
  await page.getByRole('application').first().focus();
  await page.keyboard.press('Escape');
  const told = () => page.waitForResponse('**/brought').then((r) => r.ok());
  const left = told();
  await over(page).getByText('U4').click();
  expect(await left).toBe(true);
  await expect(over(page).getByRole('checkbox').first()).not.toBeChecked();
  await page.keyboard.press('/');
  await page.getByPlaceholder('Go to a place').fill('U4');
  await page.keyboard.press('Enter');
  await expect(page.getByText('bring it over')).toBeVisible();
  const brought = told();
  await page.keyboard.press('b');
  expect(await brought).toBe(true);
  await expect(over(page).getByRole('checkbox').first()).toBeChecked();

  // hands at the other board, seen here without loading anew
  await record(page, donor, { type: 'function', name: 'heater', when: 'before', state: 'works' }, ...off('u4'));
  await expect(over(page)).toContainText('moved');
  await expect(over(page).getByRole('checkbox').first()).toBeEnabled();
  expect((await send(page, 'delete', `/api/jobs/${id}/brought`, { partIds: ['u4'] })).status()).toBe(409);

  // here the old one comes off too; then the record is taken over
  await record(page, id, ...off('u4'));
  await page.goto(`/jobs/${id}/fit`);
  const came = page.getByTestId('came-with');
  await expect(came).toContainText('21 % of what it may take');
  await expect(came).toContainText('there worked heater');
  const kept = page.waitForResponse((r) => r.url().endsWith('/events') && r.request().method() === 'POST');
  await came.getByRole('button', { name: /It is here/ }).click();
  await kept;
  await expect(came).toContainText('its record goes with it');
  await expect(page.getByRole('combobox', { name: 'Where the part is from' })).toContainText('donor board');
  await page.goto(`/record/${id}`);
  await expect(page.getByText(/Sn63Pb37, not cleaned yet/)).toBeVisible();
});

test('what is lent is owed: the good board waits for one in its place, in the list and on its page', async ({
  page,
}) => {
  const good = await newJob(page, { board: QUILLON, complaint: 'the good one from the hall' });
  const id = await newJob(page, { board: QUILLON, complaint: 'bridge driver dead' });
  expect((await send(page, 'put', `/api/jobs/${id}/donor`, { from: good })).ok()).toBe(true);
  await page.goto(`/jobs/${id}/diagnose?set`);
  await page.keyboard.press('/');
  await page.getByPlaceholder('Go to a place').fill('U2');
  await page.keyboard.press('Enter');
  await expect(over(page)).toContainText('U2');
  await boards(page).getByText('is a good board').click();
  await typeDay(boards(page).getByRole('group', { name: 'until' }), '2031-05-06');
  const brought = page.waitForResponse('**/brought');
  await over(page).getByText('U2').click();
  expect((await brought).ok()).toBe(true);
  await expect(over(page).getByRole('checkbox').first()).toBeChecked();
  await page.goto(`/jobs/${good}/diagnose`);
  await expect(page.getByRole('grid', { name: 'Parts of the set' })).toContainText('owed');
  await expect(page.getByRole('region', { name: 'Set' })).toContainText('Waits for U2, lent to No.');
  await page.goto('/jobs');
  await expect(page.getByText(/U2, lent to No\. \d+/).first()).toBeVisible();
});

test('both logs or neither; wrong packages, a closed donor, a board to itself: a sentence, and nothing is written', async ({
  page,
}) => {
  const [id, donor] = [
    await newJob(page, { board: QUILLON, complaint: 'one' }),
    await newJob(page, { board: QUILLON, complaint: 'two' }),
  ];
  const bring = (items: object[], from = donor) => send(page, 'post', `/api/jobs/${id}/brought`, { from, items });
  expect((await bring([{ partId: 'u4', from: 'u2' }])).status()).toBe(400);
  expect((await bring([{ partId: 'u4', from: 'zz' }])).status()).toBe(400);
  expect((await bring([{ partId: 'u4', from: 'u4' }], id)).status()).toBe(400);
  expect((await bring([{ partId: 'u4', from: 'u4' }], uuid7())).status()).toBe(404);
  expect((await send(page, 'put', `/api/jobs/${id}/donor`, { from: id })).status()).toBe(400);
  await record(page, donor, { type: 'released', outcome: 'not repaired' });
  expect((await bring([{ partId: 'u4', from: 'u4' }])).status()).toBe(409);
  expect([await setOf(id), await setOf(donor)]).toEqual([[], []]);
});

test('two who bring from each other at once: each is whole', async ({ page, browser }) => {
  const [a, b] = [
    await newJob(page, { board: QUILLON, complaint: 'left' }),
    await newJob(page, { board: QUILLON, complaint: 'right' }),
  ];
  const other = patient(await browser.newPage());
  await other.goto(`${shopOf(page)}/jobs`);
  const all = await Promise.all(
    ['u2', 'u5', 'u7', 'q1'].flatMap((partId) => [
      send(page, 'post', `/api/jobs/${a}/brought`, { from: b, items: [{ partId, from: partId }] }),
      send(other, 'post', `/api/jobs/${b}/brought`, { from: a, items: [{ partId, from: partId }] }),
    ]),
  );
  expect(all.map((r) => r.status())).toEqual(all.map(() => 204));
  // every one of the eight stands in both logs
  expect([(await setOf(a)).length, (await setOf(b)).length]).toEqual([8, 8]);
  await other.close();
});

test('a new board without parts: checked first, thinner than drawn, everything is put on', async ({ page }) => {
  const donor = await newJob(page, { board: QUILLON, complaint: 'the old board' });
  const id = await newJob(page, { board: QUILLON, complaint: 'the new board' });
  await send(page, 'put', `/api/jobs/${id}/donor`, { from: donor });
  await page.goto(`/jobs/${id}/diagnose?set`);
  await boards(page)
    .getByRole('button', { name: /new board without parts/ })
    .click();
  await boards(page).getByRole('button', { name: 'All places are empty' }).click();
  await boards(page).getByText('tried in its place').click();
  await boards(page).getByLabel('Thickness').fill('9');
  await boards(page).getByLabel('Thickness').blur();
  await expect(boards(page)).toContainText('Between 0.2 and 6 mm.');
  await boards(page).getByLabel('Thickness').fill('0,8');
  await boards(page).getByLabel('Thickness').blur();
  await expect(boards(page)).toContainText('computed for 0.8 mm: thinner');
  await record(page, id, { type: 'set-parts', items: [{ partId: 'q1', side: 'top', do: 'place' }] });
  await page.reload();
  await expect(over(page)).toContainText('Q1');
  await over(page).getByText('Q1').click();
  await expect(over(page).getByRole('checkbox').first()).toBeChecked();
  await expect(boards(page)).toContainText('tab or middle pad');
  expect((await setOf(id)).at(-1)).toMatchObject({ partId: 'q1', do: 'place', from: { ticketId: donor } });
  await record(page, id, gone('battery', 0));
  await page.goto(`/jobs/${id}/protect`);
  await expect(page.getByText('open: contacts masked')).toBeVisible();
  await page.getByText('edge contacts, sockets').click();
  await expect(page.getByText('fits, 0.8 mm, contacts masked')).toBeVisible();
});
