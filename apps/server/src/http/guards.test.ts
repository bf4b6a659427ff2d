import { randomUUID } from 'node:crypto';
import request from 'supertest';
import { message, takenIn, testApp, type TestApp } from './testServer';

let running: TestApp;
beforeAll(async () => {
  running = await testApp('server_guards');
});
afterAll(() => running.stop());

const begun = async (body: object = {}): Promise<string> => {
  const id = randomUUID();
  await request(running.app).post(`/api/orders/${id}/events`).send(takenIn(body)).expect(201);
  return id;
};
const send = (id: string, event: object) => request(running.app).post(`/api/orders/${id}/events`).send(event);

describe('who is answered', () => {
  test('only the server’s own names: a page elsewhere that points its name here reads nothing', async () => {
    await request(running.app).get('/api/machines').set('Host', 'rebound.example').expect(421);
    await request(running.app).get('/api/machines').set('Host', 'localhost:4720').expect(200);
    await request(running.app).get('/api/machines').set('Host', '[::1]:4720').expect(200);
  });

  test('changes from the own pages only', async () => {
    const id = randomUUID();
    const { body } = await send(id, takenIn())
      .set('Host', '127.0.0.1:9')
      .set('Origin', 'http://elsewhere.example')
      .expect(403);
    expect(body.detail).toMatch(/own pages/);
    await send(id, takenIn()).set('Host', '127.0.0.1:9').set('Origin', 'http://127.0.0.1:9').expect(201);
  });
});

describe('text that cannot be stored', () => {
  test.each([
    ['NUL', 'a\u0000b'],
    ['half a pair', 'x\ud83d'],
    ['a control character', '\u001b[2J'],
  ])('%s is refused at its place, and the next entry is taken', async (_what, text) => {
    const id = await begun();
    const { body } = await send(id, message('note-added', { text })).expect(422);
    expect(body.path).toBe('/body/text');
    await send(id, message('note-added', { text: 'Grüße 🔧\nzweite Zeile' })).expect(201);
  });

  test('in addresses too, and depth, inherited names and wrong years do no harm', async () => {
    await request(running.app).get('/api/machines/%00').expect(400);
    await request(running.app).get('/api/orders?machine=%00').expect(400);
    const id = await begun();
    await request(running.app).get(`/api/orders/${id}/events?after=2147483648`).expect(422);
    const deep = `{"a":${'['.repeat(2000)}${']'.repeat(2000)}}`;
    await request(running.app).post('/api/machines').set('Content-Type', 'application/json').send(deep).expect(422);
    await send(id, message('note-added', { text: 'x', constructor: { a: 1 } })).expect(422);
    await send(id, message('note-added', { text: 'x' }, { at: '0000-01-01T00:00:00.000Z' })).expect(422);
  });

  test('what is too large is told its own limit', async () => {
    const id = await begun();
    const event = await send(id, message('note-added', { text: 'y'.repeat(300_000) })).expect(413);
    expect(event.body.detail).toContain('256 kB');
    const photo = await request(running.app)
      .put(`/api/orders/${id}/photos/${randomUUID()}`)
      .set('Content-Type', 'image/jpeg')
      .send(Buffer.alloc(3 * 1024 * 1024 + 1))
      .expect(413);
    expect(photo.body.detail).toContain('3 MB');
  });
});

describe('one id, one entry', () => {
  test('in capital letters it is the same', async () => {
    const id = await begun();
    const event = message('note-added', { text: 'once' });
    await send(id.toUpperCase(), event).expect(201);
    await send(id, { ...event, id: String(event['id']).toUpperCase() }).expect(200);
  });

  test('with other content it is refused, and both are shown', async () => {
    const id = await begun();
    const event = message('note-added', { text: 'first' });
    await send(id, event).expect(201);
    const { body } = await send(id, { ...event, body: { text: 'second' } }).expect(409);
    expect([body.stored.body.text, body.sent.body.text]).toEqual(['first', 'second']);
  });

  test('to two orders at once it goes to one of them', async () => {
    const [one, two] = [await begun(), await begun()];
    const event = message('note-added', { text: 'whose?' });
    const answers = await Promise.all([send(one, event), send(two, event)]);
    expect(answers.map(({ status }) => status).sort()).toEqual([201, 409]);
  });
});

test('who knows another past is told so', async () => {
  const id = await begun();
  const event = message('note-added', { text: 'here' });
  await send(id, event).expect(201);
  const after = (last: string) => request(running.app).get(`/api/orders/${id}/events?after=2&last=${last}`);
  await after(String(event['id'])).expect(200);
  await after(randomUUID()).expect(412);
});

describe('lists', () => {
  test('open orders by how long they wait, in pages, found by number and by machine', async () => {
    for (let i = 0; i < 55; i++) await begun({ number: `L-${String(i).padStart(3, '0')}` });
    await running.settled();
    const page = async (query: string) =>
      (await request(running.app).get(`/api/orders?status=open&${query}`).expect(200)).body;
    const [first, second] = [await page('page=1'), await page('page=2')];
    expect(first.items).toHaveLength(50);
    expect(second.items.length).toBe(first.total - 50);
    const opened = [...first.items, ...second.items].map((item: { openedAt: string }) => item.openedAt);
    expect(opened).toEqual([...opened].sort());
    expect((await page('search=L-054')).items.map((item: { number: string }) => item.number)).toEqual(['L-054']);
    expect((await page('search=dunl')).total).toBe(first.total);
    expect((await page(`search=${encodeURIComponent('100%')}`)).total).toBe(0);
  });

  test('the shop’s document is sent once, until something of it changes', async () => {
    const first = await request(running.app).get('/api/shop').expect(200);
    const tag = String(first.headers['etag']);
    await request(running.app).get('/api/shop').set('If-None-Match', tag).expect(304);
    await request(running.app)
      .put('/api/shop/changes/modes/stub')
      .send({ op: 'change', fields: { weight: 4 } })
      .expect(200);
    const second = await request(running.app).get('/api/shop').set('If-None-Match', tag).expect(200);
    expect(second.headers['etag']).not.toBe(tag);
  });
});

test('a file of changes that lacks what the shop added is refused by name, and closed orders stay closed', async () => {
  const fields = { name: 'Own fault', weight: 2, where: { nozzle: 1 }, shows: {}, remedies: ['renew-part'] };
  await request(running.app).put('/api/shop/changes/modes/own-fault').send({ op: 'add', fields }).expect(200);
  const id = await begun({ material: 'PLA' });
  await send(id, message('cause-chosen', { station: 'nozzle', mode: 'own-fault', advised: false })).expect(201);
  await send(id, message('closed', { outcome: 'given-back' })).expect(201);
  const empty = { format: 'zealous-tracer/shop-catalogue', version: 1, changes: [] };
  const { body } = await request(running.app).put('/api/shop/catalogue').send({ catalogue: empty }).expect(409);
  expect(body.detail).toContain('own-fault');
  await send(id, message('note-added', { text: 'still closed' })).expect(201);
  const closed = await request(running.app).get('/api/orders?status=closed&search=test').expect(200);
  expect(closed.body.items.some((item: { id: string }) => item.id === id)).toBe(true);
  const record = async () => (await request(running.app).get(`/api/orders/${id}/record.json`).expect(200)).body;
  expect((await record()).cause.mode).toBe('Own fault');
  // A delivery or another database may know less one day: the order is read by what it was closed with, for ever.
  await running.db.query(`delete from shop_change where id = 'own-fault'`);
  await running.db.query('update shop_state set catalogue_version = catalogue_version + 1');
  expect((await record()).cause.mode).toBe('Own fault');
  const { body: document } = await request(running.app).get(`/api/orders/${id}`).expect(200);
  expect(document.catalogue.modes.some((mode: { id: string }) => mode.id === 'own-fault')).toBe(true);
  const note = message('note-added', { text: 'and still' });
  await send(id, note).expect(201);
  expect((await record()).closed).toBeTruthy();
  expect((await record()).notes).toHaveLength(2);
});

test('an entry cannot be taken away, not by emptying the table either', async () => {
  await expect(running.db.query('truncate order_event cascade')).rejects.toThrow(/only appended/);
});

test('what an older page asks for and is no more is said without a path of this machine', async () => {
  const { text } = await request(running.app).get('/api/../_expo/static/nothing.js').expect(404);
  expect(text).not.toMatch(/\/(work|home|root|tmp)\//);
});
