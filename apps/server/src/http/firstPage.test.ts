import type { OrderSummary } from '@zealous/contracts/messages';
import { firstPage } from './firstPage';

const TEMPLATE = '<body><div id="root"><!--first--></div><!--first-data--></body>';
const order = (more: Partial<OrderSummary>): OrderSummary => ({
  id: '5a170002-0000-4000-8000-0000000000bb',
  number: '7',
  machineId: 'dunlin',
  machineName: 'Dunlin',
  status: 'open',
  openedAt: '2026-11-26T10:00:00.000Z',
  lastEventAt: '2026-11-26T10:00:00.000Z',
  phase: 'trace',
  next: 'Push from the feeder.',
  timers: [],
  heat: { temperatureC: 22, atMs: 0, targetC: 0 },
  power: 'on',
  machineHeat: { ambientC: 22, coolTauS: 150, heatUpCPerS: 2, limitC: 300 },
  ...more,
});
const page = (...items: OrderSummary[]): string =>
  firstPage(TEMPLATE, { items, page: 1, total: items.length }, Date.parse('2026-11-26T12:00:00.000Z'));

test('each open order is a link to where it goes on, in the words of the application’s card', () => {
  const html = page(order({ lead: { name: 'Stub in the hub', share: 0.62 } }), order({ id: 'x', phase: 'prove' }));
  expect(html).toContain('href="/order/5a170002-0000-4000-8000-0000000000bb/trace"');
  expect(html).toContain('aria-label="Dunlin, tracing. Next: Push from the feeder. Order 7."');
  expect(html).toContain('tracing · 2 hours');
  expect(html).toContain('Likeliest: Stub in the hub, 62 %');
  expect(html).toContain('href="/order/x/prove"');
});

test('words that somebody typed stay words: in the list, and in what the application goes on from', () => {
  const typed = '</script><script>alert("1")</script> $& \'';
  const html = page(order({ machineName: typed, number: typed, next: typed }));
  expect(html.match(/<script/g)).toHaveLength(1);
  expect(html.match(/<\/script/g)).toHaveLength(1);
  const [, data = ''] = /id="first-orders">(.*)<\/script>/.exec(html) ?? [];
  expect((JSON.parse(data) as { items: OrderSummary[] }).items[0]?.machineName).toBe(typed);
});

test('an empty bench says so', () => {
  expect(page()).toContain('The bench is empty');
});
