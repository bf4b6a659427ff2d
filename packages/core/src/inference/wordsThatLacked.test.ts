import { believed, seen, takenIn } from '../testing/believed';

/** Words that cases from the bench lacked. Common practice, no source. */

const wrongHeat = (...looks: readonly ReturnType<typeof seen>[]) =>
  believed('bowden-open', (id) => [takenIn(id, { symptoms: ['heat-error', 'by-place'] }), ...looks]);

test('who sees whose lead is hurt says so, and the other is not suspected', () => {
  const [heater, thermistor] = ['heater', 'thermistor'].map((whose) =>
    wrongHeat(seen('look-leads@block', whose, { finished: true })),
  );
  expect(heater?.share('block/heater-fault')).toBeGreaterThan(0.85);
  expect(heater?.share('block/thermistor-fault')).toBeLessThan(0.1);
  expect(thermistor?.share('block/thermistor-fault')).toBeGreaterThan(0.85);
  expect(thermistor?.share('block/heater-fault')).toBeLessThan(0.1);
});

test('a hurt cable of an order from before, which did not say whose, still speaks for both', () => {
  const before = wrongHeat();
  const { share } = wrongHeat(seen('look-cables@block', 'hurt', { finished: true }));
  for (const id of ['block/heater-fault', 'block/thermistor-fault'])
    expect(share(id)).toBeGreaterThan(before.share(id));
});

test('what comes back after each clearing is made there again: a gap sooner than the rest of another plastic', () => {
  const odds = (...more: readonly string[]) => {
    const { share } = believed('bowden-open', (id) => [takenIn(id, { symptoms: ['nothing', ...more], notLooked: [] })]);
    return share('liner/seat-gap') / share('nozzle/tip-residue');
  };
  expect(odds('recurs')).toBeGreaterThan(5 * odds());
});

test('a cold pull that broke off is told as such, and is none that came out clean', () => {
  const told = (before: string) =>
    believed('bowden-open', (id) => [takenIn(id, { symptoms: ['nothing'], before: [before] })]);
  expect(told('cold-pull-snapped').share('nozzle/carbon-plug')).toBeGreaterThan(
    1.5 * told('cold-pulled').share('nozzle/carbon-plug'),
  );
});
