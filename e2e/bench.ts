import { expect, type Page } from '@playwright/test';
import {
  checksFor,
  deliveredCatalogue,
  outcomesOfRung,
  routeOf,
  type Check,
  type CheckAtPlace,
  type Machine,
  type RungResult,
} from '@zealous/core';

/** A fault that the robot technician pretends: what sits where, as depth on the route. */
export interface Pretended {
  readonly machine: Machine;
  readonly lane?: string;
  /** Station where a strand stops, and how far into it, mm. */
  readonly station: string;
  readonly intoMm: number;
}

export const button = (page: Page, name: string | RegExp) =>
  page.getByRole('button', { name, exact: typeof name === 'string' });

/** Opens a place of the path: on the strand, or where the check's words leave room for the strip only, on the whole strand behind it. */
export async function openPlace(page: Page, name: string): Promise<void> {
  const place = page.getByRole('button', { name: new RegExp(`^${name}: (suspicion|little|cleared)`) });
  const strip = button(page, /Show the whole strand$/);
  // A longer look may bring another check, whose words leave more or less room, between the look at the page and the tap.
  await expect(async () => {
    if (!(await place.isVisible())) await strip.click({ timeout: 2_000 });
    await place.click({ timeout: 2_000 });
  }).toPass();
}

export async function enterNumber(page: Page, value: number): Promise<void> {
  for (const sign of String(value)) await button(page, sign === '.' ? 'point' : sign).click();
  await button(page, /^Enter \d/).click();
}

/** Says what a look showed that may show several things: ticks them, and that this is all; or that nothing of it was there. */
export async function tickItems(page: Page, check: Check, ids: readonly string[]): Promise<void> {
  const normal = check.results.at(-1);
  const seen = check.results.filter(({ id }) => ids.includes(id) && id !== normal?.id);
  if (seen.length === 0) return button(page, normal?.label ?? '').click();
  for (const { label } of seen) await page.getByRole('checkbox', { name: label, exact: true }).click();
  await button(page, 'That is all I see').click();
}

/** Answers the check that the screen asks for as this fault would; returns what was asked. */
export async function answerCheck(page: Page, fault: Pretended): Promise<CheckAtPlace> {
  const asked = (await page.getByTestId('check-name').textContent()) ?? '';
  const route = routeOf(fault.machine, fault.lane);
  const place = checksFor(deliveredCatalogue, fault.machine, route).find((item) => item.name === asked);
  if (!place) throw new Error(`No check is called "${asked}".`);
  const stop = route.stops.find((item) => item.station.id === fault.station);
  if (!stop) throw new Error(`No station "${fault.station}".`);
  const { check } = place;
  const blocked = place.reach.has(stop.index) && check.results.find((result) => result.depth);
  if (check.asks) await button(page, 'At loading').click();
  else if (check.quantity) {
    await button(page, `Enter ${check.quantity.unit}`).click();
    await enterNumber(page, check.quantity.reads === 'fed' ? 4 : check.quantity.normal.mean);
  } else if (blocked) {
    await button(page, blocked.label).click();
    await enterNumber(page, Math.round(stop.fromMm + fault.intoMm - (place.entryMm ?? 0)));
  } else {
    const seen =
      !check.swap && place.reach.has(stop.index)
        ? check.results.find((result) => result.when?.['visible']?.includes('stub'))
        : undefined;
    if (check.items) await tickItems(page, check, seen ? [seen.id] : []);
    else await button(page, (seen ?? check.results.at(-1))?.label ?? '').click();
  }
  return place;
}

/** Goes through tracing until the screen says that enough is known. */
export async function traceToRepair(
  page: Page,
  answer: (page: Page) => Promise<string>,
  each?: () => Promise<void>,
): Promise<readonly string[]> {
  const asked: string[] = [];
  for (let i = 0; i < 22; i++) {
    const enough = page.getByRole('heading', { name: 'Repair now: enough is known' });
    await expect(enough.or(page.getByTestId('check-name'))).toBeVisible();
    if (await enough.isVisible()) return asked;
    const before = await page.getByTestId('check-name').textContent();
    try {
      asked.push(await answer(page));
    } catch (error) {
      // While it was read the machine may have cooled a step further, and another check stand there; else it is a fault.
      const [now = 'enough'] = await page.getByTestId('check-name').allTextContents();
      if (now === before) throw error;
      continue;
    }
    await expect(async () => {
      // All at once, without waiting: the check may be gone by now, and enough be known.
      const [now = 'enough'] = await page.getByTestId('check-name').allTextContents();
      expect(now).not.toBe(before);
    }).toPass({ timeout: 30_000 });
    await each?.();
  }
  throw new Error(`Not at a repair after ${asked.length} checks: ${asked.join(', ')}`);
}

/** The button that says what came of the rung that the current step is. */
function outcomeOf(step: string | null, means: RungResult): { readonly name: string; readonly exact: true } {
  const remedy = deliveredCatalogue.remedies.find(({ name, actions }) =>
    [name, actions?.at(-1)?.name].some((title) => title !== undefined && step?.includes(`: ${title}: `)),
  );
  const outcome = remedy && outcomesOfRung(remedy).find((item) => item.means === means);
  if (!outcome) throw new Error(`"${step}" has no outcome "${means}".`);
  return { name: outcome.label, exact: true };
}

const ONWARDS = /^(Done|It stands raised and supported|Nothing stands under it|It sits there, held)$/;
const COUNTED = /^(All \d+ (out|back)|It is out: part off)/;
const STRAND = /^(Loaded, down into the head|It came out whole|Cut and held; what is left is noted)$/;

/** Works the plan to its end: ways there where a step is held, readings, screws counted, the last rung clears. */
export async function workPlan(
  page: Page,
  rung: (n: number) => RungResult,
  each?: () => Promise<void>,
  /** How heat and power are changed, when not by saying so. */
  way: (label: string) => Promise<boolean> = () => Promise.resolve(false),
): Promise<void> {
  let rungs = 0;
  const heated = new Set<string | null>();
  for (let i = 0; i < 120; i++) {
    const prove = button(page, 'Prove the repair');
    const current = page.getByRole('group', { name: /^Step .*, now$/ });
    await expect(prove.or(current)).toBeVisible();
    if (await prove.isVisible()) return;
    const name = await current.getAttribute('aria-label');
    // What is only said to be heated, and is not, is taken back by a machine that is heard.
    const heat = /: (?:Set the hot end to|Target to zero)(?: \d+ °C)?/.exec(name ?? '')?.[0];
    if (heat && !heated.has(name)) {
      heated.add(name);
      if (await way(heat.replace(': Set the hot end to', 'Heating to').replace(/^: /, ''))) continue;
    }
    const ways = current.getByRole('button', { name: /^(Heating to|Target to zero|Switched|Head raised)/ });
    const cleared = current.getByText(/^(What came of it\?|Is it in\?)$/);
    const cold = current.getByRole('button', { name: /^It reads/ });
    const strand = current.getByRole('button', { name: STRAND });
    const counted = current.getByRole('button', { name: COUNTED });
    const softened = current.getByRole('radio', { name: 'The piece softened' });
    const done = current.getByRole('button', { name: ONWARDS });
    // A step that was taken out of turn and cannot be done yet leads back.
    const inTurn = current.getByRole('button', { name: /^Back in turn: / });
    const any = [ways, cleared, cold, strand, counted, softened, done].reduce((all, one) => all.or(one));
    await expect(any.or(inTurn).first()).toBeVisible();
    if (!(await any.first().isVisible())) {
      await inTurn.click();
      continue;
    }
    if (await ways.first().isVisible()) {
      const label = (await ways.first().getAttribute('aria-label')) ?? '';
      if (!(await way(label))) {
        await ways.first().click();
        // Heating and cooling take minutes; the reading that ends them is typed in instead of waited for.
        if (label.startsWith('Heating')) await noteReading(page, Number(/(\d+) °C/.exec(label)?.[1]));
        if (label.startsWith('Target')) await noteReading(page, 30);
      }
    } else if (await cleared.isVisible()) await current.getByRole('button', outcomeOf(name, rung(++rungs))).click();
    else if (await softened.first().isVisible()) await softened.first().click();
    else if (await strand.first().isVisible()) await strand.first().click();
    else if (await cold.isVisible()) await cold.click();
    else if (await counted.first().isVisible()) await counted.first().click();
    else await done.click();
    await expect(async () => {
      const now = (await prove.isVisible()) ? '' : await current.getAttribute('aria-label', { timeout: 1000 });
      const still = now === name && (await ways.first().isVisible());
      expect(still && !(await cleared.isVisible())).toBe(false);
    }).toPass({ timeout: 30_000 });
    await each?.();
  }
  throw new Error('The plan did not end.');
}

export async function noteReading(page: Page, value: number): Promise<void> {
  await button(page, 'Change. Heat and power of the machine').click();
  await page.getByLabel('Temperature reading in degrees Celsius').fill(String(value));
  await button(page, 'Note reading').click();
  await expect(page.getByLabel('Temperature reading in degrees Celsius')).toBeHidden();
}
