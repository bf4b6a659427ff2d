import { expect, type Page } from '@playwright/test';
import { checksFor, deliveredCatalogue, materialOf, routeOf, type CheckAtPlace, type Machine } from '@zealous/core';
import { causesOf, type Cause } from '../packages/core/src/observation/causes';
import { answersUnder, outcomesOf, overall, type Outcome } from '../packages/core/src/observation/likelihood';
import { itemLook, lookOf } from '../packages/core/src/observation/looks';
import { allWays, resultShares } from '../packages/core/src/observation/ways';
import { button, enterNumber, noteReading, openPlace, tickItems, traceToRepair } from './bench';

/** A fault that the robot technician pretends, by station and failure mode; two may be there at once. */
export interface Fault {
  readonly machine: Machine;
  readonly lane?: string;
  readonly causes: readonly (readonly [station: string, mode: string])[];
}

const causesIn = ({ machine, lane, causes }: Fault): readonly Cause[] => {
  const kase = {
    machine,
    catalogue: deliveredCatalogue,
    symptoms: [],
    before: [],
    material: 'PLA',
    ...(lane ? { lane } : {}),
  };
  const all = causesOf(kase, routeOf(machine, lane));
  return causes.map(([station, mode]) => {
    const found = all.find((cause) => cause.stop.station.id === station && cause.mode.id === mode);
    if (!found) throw new Error(`no cause ${station}/${mode}`);
    return found;
  });
};

/** What a check would most likely say with this fault: of two causes, the one that shows. */
function likeliest(place: CheckAtPlace, fault: Fault): Outcome {
  const outcomes = outcomesOf(place, routeOf(fault.machine, fault.lane), deliveredCatalogue);
  const best = causesIn(fault).map((cause) => {
    const under = answersUnder(deliveredCatalogue, place, cause);
    const p = outcomes.map((outcome) => overall(lookOf(place.check), cause, under(outcome)));
    return p.indexOf(Math.max(...p));
  });
  const index = best.find((i) => i !== outcomes.length - 1) ?? best[0] ?? 0;
  return outcomes[index] as Outcome;
}

/** Answers the check on the screen as the fault would most likely show. */
export async function answerAs(page: Page, fault: Fault): Promise<string> {
  const asked = (await page.getByTestId('check-name').textContent()) ?? '';
  const place = checksFor(deliveredCatalogue, fault.machine, routeOf(fault.machine, fault.lane)).find(
    (item) => item.name === asked,
  );
  if (!place) throw new Error(`No check is called "${asked}".`);
  const { check } = place;
  const outcome = likeliest(place, fault);
  const middle = ((outcome.low ?? 0) + (outcome.high ?? 0)) / 2;
  if (check.quantity) {
    const { min, max } = check.quantity;
    await button(page, `Enter ${check.quantity.unit}`).click();
    await enterNumber(page, Math.max(min, Math.min(max, Math.round(middle))));
    return place.key;
  }
  if (check.items) {
    const there = causesIn(fault).filter((cause) => place.reach.has(cause.stop.index));
    const shown = check.results.filter((item) =>
      there.some(({ mode }) => (resultShares(allWays(mode), itemLook(item))[0] ?? 0) > 0.4),
    );
    await tickItems(
      page,
      check,
      shown.map(({ id }) => id),
    );
    return place.key;
  }
  const result = check.results.find(({ id }) => id === outcome.result);
  await button(page, check.asks ? outcome.label : (result?.label ?? '')).click();
  if (result?.depth) await enterNumber(page, Math.round(middle));
  else if (result?.measured) await button(page, 'Not measured').click();
  return place.key;
}

/** Traces until enough is known, and takes the fault on: as advised when it is that, at its station when it is not. */
export async function traceAndTake(page: Page, fault: Fault): Promise<void> {
  await traceToRepair(page, (at) => answerAs(at, fault));
  for (const [i, cause] of causesIn(fault).entries()) {
    const station = cause.stop.station.name;
    if (i > 0) await page.getByRole('link', { name: /Trace/ }).click();
    const direct = page.getByRole('button', {
      name: new RegExp(`^(Repair )?${station}: ${cause.mode.name.toLowerCase()}, `),
    });
    if (i === 0 && (await direct.first().isVisible())) {
      await direct.first().click();
      continue;
    }
    await openPlace(page, station);
    const card = page.getByText(cause.mode.name, { exact: true }).last().locator('../..');
    await card.getByRole('button', { name: /^Take this/ }).click();
  }
  await expect(page.getByRole('group', { name: /^Step .*, now$/ })).toBeVisible();
}

/** Proves everything that is asked for, as it would go after a good repair. */
export async function proveAll(page: Page, fault: Fault): Promise<void> {
  const hotC = Math.min(materialOf(deliveredCatalogue, 'PLA').printC, fault.machine.heat.limitC);
  for (let i = 0; i < 40; i++) {
    const done = button(page, 'Proved: close the order');
    const yes = button(page, 'Yes');
    const left = page.getByLabel('Left to the mark, mm');
    const bed = button(page, 'Checked without numbers: paper pulls alike everywhere');
    const ran = page.getByLabel('It ran sound for, minutes');
    await expect(done.or(yes).or(left).or(bed).or(ran).first()).toBeVisible();
    if (await done.isVisible()) {
      await done.click();
      return;
    }
    const heat = page.getByRole('button', { name: /^Heating to/ });
    if (await heat.isVisible()) {
      await heat.click();
      await noteReading(page, hotC);
    }
    const cold = button(page, /^It reads below 48/);
    if (await cold.isVisible()) await cold.click();
    const off = button(page, 'Switched off and unplugged');
    if (await off.isVisible()) await off.click();
    const on = button(page, 'Switched on');
    if (await on.isVisible()) await on.click();
    if (await left.isVisible()) {
      await left.fill('20.2');
      await button(page, 'Feed is right, or set right').click();
      await expect(left).toBeHidden();
    } else if (await bed.isVisible()) await bed.click();
    else if (await ran.isVisible()) {
      await ran.fill('300');
      const height = page.getByLabel('It reached a height of, mm');
      if (await height.isVisible()) await height.fill('900');
      await button(page, 'It ran past that, sound').click();
      await expect(ran).toBeHidden();
    } else await yes.click();
  }
  throw new Error('The proofs did not end.');
}

/** Closes as cured, and sees on the screen and at the server that it is. */
export async function closeCured(page: Page): Promise<void> {
  await page.getByRole('radio', { name: 'Cured and proved' }).click();
  await button(page, 'Close the order').click();
  await expect(button(page, 'Closed wrongly?')).toBeVisible();
  const { origin, pathname } = new URL(page.url());
  const record = `${origin}/api${pathname.replace('/order/', '/orders/')}.json`;
  await expect
    .poll(async () => ((await (await page.request.get(record)).json()) as { outcome?: string }).outcome)
    .toBe('cured');
}
