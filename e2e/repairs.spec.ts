import { expect, test, type Page } from '@playwright/test';
import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { deliveredCatalogue, type Machine } from '@zealous/core';
import { button, workPlan } from './bench';
import { closeCured, proveAll, traceAndTake, type Fault } from './fault';
import { countTaps, type Taps } from './taps';
import { testServer, type TestServer } from './server';

let server: TestServer;
test.beforeAll(async () => {
  server = await testServer('repairs');
});
test.afterAll(() => server.stop());

const machine = (name: string): Machine => JSON.parse(readFileSync(`demo/machines/${name}.json`, 'utf8')) as Machine;

/** Takes a machine in by the open format, as another program would; the rest is done on the screens. */
async function takenIn(page: Page, fault: Fault, intake: object): Promise<string> {
  const id = randomUUID();
  const answer = await page.request.post(`${server.url}/api/orders/${id}/events`, {
    data: {
      id: randomUUID(),
      at: new Date().toISOString(),
      by: 'bench 2',
      type: 'taken-in',
      body: {
        number: id.slice(0, 8),
        machineId: fault.machine.id,
        symptoms: [],
        before: [],
        material: 'PLA',
        ...(fault.lane ? { lane: fault.lane } : {}),
        ...intake,
      },
    },
  });
  expect(answer.status()).toBe(201);
  await page.goto(`${server.url}/order/${id}/trace`);
  return id;
}

/**
 * Taps from the bench to a proved close, beside those on the steps of the work. 45 are aimed at and the figure is printed; which check
 * is advised first may differ by how quickly the longer look comes, so the test refuses only what cannot come from that.
 */
const MOST_TAPS = 55;
const tapped = (story: string, { taps, steps, characters }: Taps): void => {
  process.stdout.write(`taps of "${story}": ${taps} beside ${steps} on steps of the work, ${characters} characters\n`);
  expect(taps).toBeLessThanOrEqual(MOST_TAPS);
};

/** The question in which a complaint is asked. */
const SEEN = {
  print: /^What is seen of the print/,
  filament: /^How does the filament run/,
  machine: /^What of the machine/,
};

/** Takes a machine in as a person does, from the bench. */
async function takenInByHand(page: Page, fault: Fault, symptom: string, onset: string): Promise<string> {
  const { machine: of, lane } = fault;
  const label = (list: readonly { readonly id: string; readonly label: string }[], id: string): string =>
    list.find((item) => item.id === id)?.label ?? id;
  await page.goto(server.url);
  await button(page, 'Take in a machine').click();
  await page.getByRole('radio', { name: new RegExp(`^${of.name} `) }).click();
  const lanes = of.runs.find(({ id }) => id === lane)?.name;
  if (lanes) await page.getByRole('radio', { name: lanes, exact: true }).click();
  const { about = 'print' } = deliveredCatalogue.symptoms.find(({ id }) => id === symptom) ?? {};
  await button(page, SEEN[about]).click();
  await page.getByRole('checkbox', { name: label(deliveredCatalogue.symptoms, symptom), exact: true }).click();
  const { after = false } = deliveredCatalogue.onsets.find(({ id }) => id === onset) ?? {};
  await button(page, after ? /^Did it begin after/ : /^When does it show/).click();
  await page.getByRole('checkbox', { name: label(deliveredCatalogue.onsets, onset), exact: true }).click();
  await button(page, /^Filament in it/).click();
  await page.getByRole('radio', { name: 'PLA', exact: true }).click();
  await button(page, 'Take in and trace').click();
  await expect(page).toHaveURL(/order\/[-0-9a-f]+\/trace$/);
  return page.url().split('/').at(-2) ?? '';
}

test('a stub in the hub: traced, cleared, and the phone reloaded in the middle of the work', async ({ page }) => {
  const fault: Fault = { machine: machine('dunlin'), lane: 'lane-a', causes: [['hub', 'stub']] };
  const taps = await countTaps(page);
  await takenInByHand(page, fault, 'not-reach', 'loading');
  await traceAndTake(page, fault);
  const step = page.getByRole('group', { name: /^Step .*, now$/ });
  await expect(step).toBeVisible();
  let reloaded = false;
  await workPlan(
    page,
    () => 'cleared',
    async () => {
      if (reloaded) return;
      reloaded = true;
      const now = await step.getAttribute('aria-label');
      await page.reload();
      await expect(step).toHaveAttribute('aria-label', now ?? '');
    },
  );
  await button(page, 'Prove the repair').click();
  await proveAll(page, fault);
  await closeCured(page);
  tapped('stub in the hub', taps());
});

test('a liner plug after a hot switch-off: the server is killed during the work, and nothing is lost', async ({
  page,
}) => {
  const fault: Fault = { machine: machine('whelk'), causes: [['liner', 'liner-plug']] };
  const taps = await countTaps(page);
  await takenInByHand(page, fault, 'nothing', 'hot-off');
  await traceAndTake(page, fault);
  await server.kill();
  await workPlan(page, (n) => (n === 1 ? 'no-change' : 'cleared'));
  await server.start();
  await button(page, 'Prove the repair').click();
  await proveAll(page, fault);
  await expect(page.getByText(/will be sent/)).toBeHidden();
  await closeCured(page);
  tapped('plug after a hot switch-off', taps());
});

test('a worn gear with a cracked arm: one opening for both, and the record says that it cannot be told which it was', async ({
  page,
}) => {
  const fault: Fault = {
    machine: machine('dunlin'),
    lane: 'lane-a',
    causes: [
      ['extruder', 'gears-worn'],
      ['extruder', 'arm-cracked'],
    ],
  };
  const taps = await countTaps(page);
  const id = await takenInByHand(page, fault, 'thin', 'slowly');
  await traceAndTake(page, fault);
  await expect(page.getByText(/And in the same opening: Extruder, idler arm cracked/)).toBeVisible();
  await workPlan(page, () => 'cleared');
  await button(page, 'Prove the repair').click();
  await proveAll(page, fault);
  await closeCured(page);
  tapped('worn gear and cracked arm', taps());
  const record = await (await page.request.get(`${server.url}/api/orders/${id}/record.json`)).json();
  expect(record.confounded.changes).toHaveLength(2);
  // A worn part is never put back to learn which it was.
  expect(record.confounded.tells).toBeUndefined();
  const pdf = await page.request.get(`${server.url}/api/orders/${id}/record.pdf`);
  expect((await pdf.body()).subarray(0, 5).toString()).toBe('%PDF-');
});

test('a tube out of its seat behind a cover: the screws are tapped out and in, and none may stay on the mat', async ({
  page,
}) => {
  const fault: Fault = { machine: machine('turnstone'), lane: 'left', causes: [['coupler-left', 'tube-out']] };
  await takenIn(page, fault, { symptoms: ['not-reach'], onset: 'after-moving' });
  await traceAndTake(page, fault);
  const seen = { out: 0, mat: 0 };
  await workPlan(
    page,
    (n) => (n === 1 ? 'no-change' : 'cleared'),
    async () => {
      const closing = page.getByRole('group', { name: /^Step .*Back on: Side cover.*, now$/ });
      const opening = page.getByRole('group', { name: /^Step .*Off: Side cover.*, now$/ });
      if (await opening.isVisible()) {
        // Not off before its six screws are out.
        await expect(opening.getByRole('button', { name: 'Done', exact: true })).toBeHidden();
        await opening.getByRole('button', { name: 'All are out' }).click();
        await expect(opening.getByText(/^6 of 6 out$/)).toBeVisible();
        seen.out++;
      }
      if (await closing.isVisible()) {
        await expect(closing.getByText('6 still on the mat: put them back, or say why not.')).toBeVisible();
        await closing.getByRole('checkbox', { name: /number 1: out/ }).click();
        await expect(closing.getByText('1 of 6 back, 5 on the mat')).toBeVisible();
        await closing.getByRole('button', { name: 'All are back' }).click();
        seen.mat++;
      }
    },
  );
  expect(seen).toEqual({ out: 1, mat: 1 });
  await button(page, 'Prove the repair').click();
  await proveAll(page, fault);
  await closeCured(page);
});

test('a sensor lever stuck up: steps in one’s own order, one skipped, and a picture of the part', async ({ page }) => {
  const fault: Fault = { machine: machine('dunlin'), lane: 'lane-a', causes: [['sensor', 'lever-stuck']] };
  const id = await takenIn(page, fault, { symptoms: ['pulls-on'], onset: 'withdrawal' });
  await traceAndTake(page, fault);
  // Out of turn, and then not needed: this one has no box of spares, and nothing is asked of it again.
  await button(page, 'It stands differently …').click();
  await button(page, 'Filament: empty in every lane').click();
  await button(page, 'That is right now').click();
  await expect(page.getByRole('group', { name: /Empty the head|Draw the strand back/ })).toBeHidden();
  const cover = page.getByRole('group', { name: /Off: Front cover of the head/ });
  const first = cover.getByRole('button', { name: /^Out of turn, now/ });
  if (await first.isVisible()) await first.click();
  await cover.getByRole('button', { name: 'Not needed here …' }).click();
  await cover.getByLabel('Why it is not needed').fill('it was lost long ago');
  await cover.getByRole('button', { name: 'Skip, with this reason' }).click();
  await expect(cover).toBeHidden();
  const chooser = page.waitForEvent('filechooser');
  await page
    .getByRole('button', { name: /^(Take a picture|Picture of the part)$/ })
    .first()
    .click();
  await (await chooser).setFiles('docs/screenshots/bench.png');
  await expect(page.getByRole('button', { name: /^Picture of 20/ }).first()).toBeVisible();
  await page.reload();
  await expect(page.getByRole('group', { name: /^Step .*, now$/ })).toBeVisible();
  await workPlan(page, () => 'cleared');
  await button(page, 'Prove the repair').click();
  await proveAll(page, fault);
  await closeCured(page);
  const { pictures } = await (await page.request.get(`${server.url}/api/orders/${id}/record.json`)).json();
  expect(pictures).toHaveLength(1);
  const order = await (await page.request.get(`${server.url}/api/orders/${id}`)).json();
  const types = order.events.map(({ event }: { event: { type: string } }) => event.type);
  expect(types.indexOf('step-skipped')).toBeGreaterThan(types.indexOf('cause-chosen'));
  await expect(async () => {
    const photo = await page.request.get(`${server.url}/api/orders/${id}/photos/${pictures[0].photoId}`);
    expect(photo.headers()['content-type']).toBe('image/jpeg');
  }).toPass({ timeout: 30_000 });
});

test('the technician’s own choices: the way a part comes off, what is fitted, a solvent tried on a piece first', async ({
  page,
}) => {
  const send = async (id: string, type: string, body: object): Promise<void> => {
    const data = { id: randomUUID(), at: new Date().toISOString(), by: 'bench 2', type, body };
    expect((await page.request.post(`${server.url}/api/orders/${id}/events`, { data })).status()).toBe(201);
  };
  const step = page.getByRole('group', { name: /^Step .*, now$/ });

  const whelk = await takenIn(page, { machine: machine('whelk'), causes: [] }, {});
  await send(whelk, 'cause-chosen', { station: 'liner', mode: 'liner-plug', advised: true });
  await send(whelk, 'rung-picked', { station: 'liner', mode: 'liner-plug', remedy: 'renew-liner' });
  await page.goto(`${server.url}/order/${whelk}/plan`);
  await button(page, /^Out of turn, now: Off: Hot end/).click();
  await expect(step).toHaveAttribute('aria-label', /from below/);
  await step.getByRole('radio', { name: /^The usual way/ }).click();
  await expect(step).not.toHaveAttribute('aria-label', /from below/);
  await expect(page.getByRole('group', { name: /Off: .*shroud/i })).toBeVisible();

  const soaked = await takenIn(page, { machine: machine('dunlin'), lane: 'lane-a', causes: [] }, {});
  await send(soaked, 'cause-chosen', { station: 'break', mode: 'break-plug', advised: true });
  await send(soaked, 'rung-picked', { station: 'break', mode: 'break-plug', remedy: 'solvent-soak' });
  await page.goto(`${server.url}/order/${soaked}/plan`);
  await button(page, /^Out of turn, now: Try the solvent on a piece/).click();
  await expect(step.getByText('The soak begins once a piece has softened.')).toBeVisible();
  await step.getByRole('radio', { name: 'It did not' }).first().click();
  await step.getByRole('radio', { name: 'The piece softened' }).last().click();
  await button(page, /^Out of turn, now: Soak the part/).click();
  await expect(button(page, /^Start the timer, 24 h/)).toBeVisible();
  await page.keyboard.press('t');
  await expect(page.getByRole('timer')).toBeVisible();

  const dunlin = await takenIn(page, { machine: machine('dunlin'), lane: 'lane-a', causes: [] }, {});
  await send(dunlin, 'cause-chosen', { station: 'extruder', mode: 'gears-worn', advised: true });
  await send(dunlin, 'rung-picked', { station: 'extruder', mode: 'gears-worn', remedy: 'renew-extruder-unit' });
  await page.goto(`${server.url}/order/${dunlin}/plan`);
  await button(page, /^Out of turn, now: Renew the extruder unit whole/).click();
  const fitted = page.getByRole('group', { name: 'What is fitted' });
  await fitted.getByRole('button', { name: /^Complete extruder unit/ }).click();
  await expect(step.getByText('12 min')).toBeVisible();
  await workPlan(page, () => 'cleared');
  // What is tapped goes to the server on its own; it may still be on its way.
  const recordOf = async (id: string) => (await page.request.get(`${server.url}/api/orders/${id}/record.json`)).json();
  await expect
    .poll(async () => (await recordOf(dunlin)).parts)
    .toContainEqual(expect.objectContaining({ fitted: 'Complete extruder unit', price: 48 }));
  await expect
    .poll(async () => (await recordOf(soaked)).solvents)
    .toEqual(['A piece in ethyl acetate: did not soften', 'A piece in acetone: softened']);
});

test('a bolted hot end renewed whole: plugs, paste and calibration, and no heat while its plugs are pulled', async ({
  page,
}) => {
  const fault: Fault = { machine: machine('samphire'), lane: 'lane-a', causes: [['break', 'break-plug']] };
  const id = await takenIn(page, fault, { symptoms: ['nothing'] });
  const send = async (type: string, body: object): Promise<void> => {
    const data = { id: randomUUID(), at: new Date().toISOString(), by: 'bench 2', type, body };
    expect((await page.request.post(`${server.url}/api/orders/${id}/events`, { data })).status()).toBe(201);
  };
  await send('bench-changed', { power: 'on', targetC: 208, readingC: 208 });
  await send('cause-chosen', { station: 'break', mode: 'break-plug', advised: true });
  await send('rung-picked', { station: 'break', mode: 'break-plug', remedy: 'renew-hot-end', offer: 'as-fitted' });
  await page.goto(`${server.url}/order/${id}/plan`);
  const seen = { unplugged: false, paste: false };
  await workPlan(
    page,
    () => 'cleared',
    async () => {
      if (
        (await page.getByTestId('heat').textContent())?.includes('unplugged: heater, thermistor') &&
        !seen.unplugged
      ) {
        seen.unplugged = true;
        await button(page, 'Change. Heat and power of the machine').click();
        await expect(page.getByText(/^No heat now: it needs every plug in its socket/)).toBeVisible();
        await expect(button(page, /^Heating to \d+ °C, print heat/)).toBeDisabled();
        await button(page, 'Close').click();
        await expect(page.getByText(/^No heat now/)).toBeHidden();
      }
      if (await page.getByRole('group', { name: /^Step .*Paste, plate and wires.*, now$/ }).isVisible())
        seen.paste = true;
    },
  );
  expect(seen).toEqual({ unplugged: true, paste: true });
  await button(page, 'Prove the repair').click();
  await expect(page.getByText('The machine’s own calibration has run')).toBeVisible();
  await proveAll(page, fault);
  await closeCured(page);
});

test('a solvent soak, from the test piece over drying to the push; cured is refused before its proofs', async ({
  page,
}) => {
  const fault: Fault = { machine: machine('samphire'), lane: 'lane-a', causes: [['break', 'break-plug']] };
  const id = await takenIn(page, fault, { symptoms: ['nothing'] });
  const send = async (type: string, body: object) => {
    const data = { id: randomUUID(), at: new Date().toISOString(), by: 'bench 2', type, body };
    return page.request.post(`${server.url}/api/orders/${id}/events`, { data });
  };
  await send('cause-chosen', { station: 'break', mode: 'break-plug', advised: true });
  await send('rung-picked', { station: 'break', mode: 'break-plug', remedy: 'solvent-soak' });
  await page.goto(`${server.url}/order/${id}/plan`);
  const order: string[] = [];
  const step = page.getByRole('group', { name: /^Step .*, now$/ });
  let wet = false;
  await workPlan(
    page,
    () => 'cleared',
    async () => {
      if (await step.isVisible()) order.push((await step.getAttribute('aria-label')) ?? '');
      wet ||= (await page.getByTestId('heat').textContent())?.includes('wet with solvent') ?? false;
    },
  );
  const at = (name: RegExp): number => order.findIndex((label) => name.test(label));
  expect(at(/Soak the part/)).toBeGreaterThanOrEqual(0);
  expect(at(/Dry it fully/)).toBeGreaterThan(at(/Soak the part/));
  expect(at(/Back on: Hot end/)).toBeGreaterThan(at(/Dry it fully/));
  expect(at(/Heat and push it out/)).toBeGreaterThan(at(/Back on: Hot end/));
  expect(wet).toBe(true);
  const early = await send('closed', { outcome: 'cured' });
  expect(early.status()).toBe(409);
  expect((await early.json()).detail).toMatch(/cannot be closed as cured/);
  await button(page, 'Prove the repair').click();
  await proveAll(page, fault);
  await closeCured(page);
});
