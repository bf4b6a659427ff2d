import type { Express } from 'express';
import { randomUUID } from 'node:crypto';
import request from 'supertest';
import type { DataSource } from 'typeorm';
import { message, takenIn, testApp } from '../http/testServer';

let app: Express;
let db: DataSource;
let stop: () => Promise<void>;
let settled: () => Promise<void>;
beforeAll(async () => {
  ({ app, db, stop, settled } = await testApp('server_orders'));
});
afterAll(() => stop());

const send = (order: string, body: object) => request(app).post(`/api/orders/${order}/events`).send(body);
async function begun(body: object = {}): Promise<string> {
  const id = randomUUID();
  await send(id, takenIn(body)).expect(201);
  return id;
}

describe('an order is a list of events', () => {
  test('the first takes it in; the machine is kept as it was', async () => {
    const id = await begun();
    await db.query(
      `update machine set description = jsonb_set(description, '{name}', '"Renamed"') where id = 'dunlin'`,
    );
    const { body } = await request(app).get(`/api/orders/${id}`).expect(200);
    await db.query(`update machine set description = jsonb_set(description, '{name}', '"Dunlin"') where id = 'dunlin'`);
    expect(body.machine.name).toBe('Dunlin');
    expect(body.events).toEqual([{ seq: 1, event: expect.objectContaining({ type: 'taken-in', by: 'bench 1' }) }]);
  });

  test('the same event sent twice is stored once, also at the same time', async () => {
    const id = await begun();
    const event = message('finding-recorded', { key: 'glide@hub', result: 'stiff' });
    const answers = await Promise.all(Array.from({ length: 6 }, () => send(id, event)));
    expect(answers.map((answer) => answer.status).sort()).toEqual([200, 200, 200, 200, 200, 201]);
    expect(new Set(answers.map((answer) => answer.body.seq))).toEqual(new Set([2]));
    const { body } = await request(app).get(`/api/orders/${id}/events?after=1`).expect(200);
    expect(body).toHaveLength(1);
  });

  test('many at once are numbered without a gap', async () => {
    const id = await begun();
    await Promise.all(
      Array.from({ length: 20 }, (_, i) => send(id, message('note-added', { text: `note ${i}` })).expect(201)),
    );
    const { body } = await request(app).get(`/api/orders/${id}/events`).expect(200);
    expect(body.map((item: { seq: number }) => item.seq)).toEqual(Array.from({ length: 21 }, (_, i) => i + 1));
  });

  test('an order taken in by two messages at once is made once', async () => {
    const id = randomUUID();
    const answers = await Promise.all([send(id, takenIn()), send(id, takenIn())]);
    expect(answers.map((answer) => answer.status).sort()).toEqual([201, 409]);
  });

  test('events cannot be changed or removed, not even by the database', async () => {
    const id = await begun();
    await expect(db.query('update order_event set by = $1 where order_id = $2', ['x', id])).rejects.toThrow(
      /only appended/,
    );
    await expect(db.query('delete from order_event where order_id = $1', [id])).rejects.toThrow(/only appended/);
  });

  test('the list follows each event: what is next, and how the order ended', async () => {
    const id = await begun({ lane: 'lane-a', material: 'PLA' });
    const find = async (status: string) => {
      await settled();
      const { body } = await request(app).get(`/api/orders?status=${status}`).expect(200);
      return body.items.find((item: { id: string }) => item.id === id) as Record<string, unknown> | undefined;
    };
    expect(await find('open')).toMatchObject({
      phase: 'trace',
      machineName: 'Dunlin',
      material: 'PLA',
      next: expect.stringMatching(/./),
    });
    await send(id, message('cause-chosen', { station: 'hub', mode: 'stub', advised: true })).expect(201);
    expect(await find('open')).toMatchObject({
      phase: 'plan',
      next: expect.stringMatching(/^Is filament in the path\?/),
      lead: { name: 'Hub: broken stub left inside' },
    });
    await send(id, message('closed', { outcome: 'given-back' })).expect(201);
    expect(await find('open')).toBeUndefined();
    expect(await find('closed')).toMatchObject({ phase: 'record', outcome: 'given-back' });
  });

  test('a withdrawn finding is gone from the record but not from the list', async () => {
    const id = await begun();
    const event = message('finding-recorded', { key: 'glide@hub', result: 'stiff' });
    await send(id, event).expect(201);
    await send(id, message('event-withdrawn', { eventId: event['id'] })).expect(201);
    const record = await request(app).get(`/api/orders/${id}/record.json`).expect(200);
    expect(record.body.findings).toEqual([]);
    const { body } = await request(app).get(`/api/orders/${id}`).expect(200);
    expect(body.events).toHaveLength(3);
  });
});

describe('what is refused says what to do', () => {
  const finding = { key: 'glide@hub', result: 'stiff' };
  test.each([
    ['unknown field', message('finding-recorded', finding, { mood: 'good' }), 422, '/mood', /unknown field/],
    [
      'unknown field in the body',
      message('finding-recorded', { ...finding, mood: 1 }),
      422,
      '/body/mood',
      /unknown field/,
    ],
    ['wrong type', message('finding-recorded', { ...finding, value: 'deep' }), 422, '/body/value', /must be number/],
    ['over-long text', message('note-added', { text: 'x'.repeat(3000) }), 422, '/body/text', /more than 2000/],
    ['words about no finding', message('note-added', { text: 'x', findingId: '7' }), 422, '/body/findingId', /uuid/],
    ['nobody', message('finding-recorded', finding, { by: '' }), 422, '/by', /1 to 60/],
    ['no time', message('finding-recorded', finding, { at: 'noon' }), 422, '/at', /ISO 8601/],
    ['not a UUID', message('finding-recorded', finding, { id: '7' }), 422, '/id', /UUID/],
    ['unknown kind', message('guess', {}), 422, '/type', /one of/],
    [
      'unknown station',
      message('cause-chosen', { station: 'attic', mode: 'stub', advised: true }),
      409,
      '/body/station',
      /no station "attic"/,
    ],
    [
      'unknown check',
      message('finding-recorded', { key: 'guess@hub', result: 'x' }),
      409,
      '/body/key',
      /no check "guess"/,
    ],
    [
      'closing without a proof',
      message('closed', { outcome: 'cured' }),
      409,
      '/body/outcome',
      /cannot be closed as cured/,
    ],
  ])('%s', async (_name, event, status, path, detail) => {
    const id = await begun();
    const answer = await send(id, event).expect(status);
    expect(answer.headers['content-type']).toMatch(/^application\/problem\+json/);
    expect(JSON.parse(answer.text)).toEqual({
      type: 'about:blank',
      title: expect.stringMatching(/./),
      status,
      path,
      detail: expect.stringMatching(detail),
    });
    const { body } = await request(app).get(`/api/orders/${id}/events`).expect(200);
    expect(body).toHaveLength(1);
  });

  test('an order that is not there, a machine that is not there, an id of another order', async () => {
    await send(randomUUID(), message('note-added', { text: 'x' })).expect(404);
    await request(app).get('/api/orders/7').expect(404);
    await send(randomUUID(), takenIn({ machineId: 'heron' })).expect(409);
    const [one, other] = [await begun(), await begun()];
    const event = message('note-added', { text: 'x' });
    await send(one, event).expect(201);
    await send(other, event).expect(409);
  });

  test('no JSON, too much of it, an unknown address, a bad page', async () => {
    await request(app)
      .post(`/api/orders/${randomUUID()}/events`)
      .set('content-type', 'application/json')
      .send('{')
      .expect(400);
    await request(app)
      .post(`/api/orders/${randomUUID()}/events`)
      .send({ text: 'x'.repeat(300_000) })
      .expect(413);
    await request(app).get('/api/attic').expect(404);
    expect(JSON.parse((await request(app).get('/api/orders?page=0').expect(422)).text).path).toBe('/page');
    expect(JSON.parse((await request(app).get('/api/orders?sort=up').expect(422)).text).path).toBe('/sort');
  });
});

describe('the demo', () => {
  test('has its machines, an order half-way and a closed one with its record', async () => {
    const machines = await request(app).get('/api/machines').expect(200);
    expect(machines.body.map((machine: { name: string }) => machine.name)).toEqual(
      expect.arrayContaining(['Dunlin', 'Whelk', 'Turnstone']),
    );
    const closed = await request(app).get('/api/orders?status=closed&machine=whelk').expect(200);
    const id = closed.body.items[0].id as string;
    const text = await request(app).get(`/api/orders/${id}/record.md`).expect(200);
    expect(text.text).toContain('# Work order 261117-w1: Whelk');
    expect(text.text).toContain('cured and proved');
    const file = await request(app).get(`/api/orders/${id}/order.json`).expect(200);
    expect(file.body).toMatchObject({ format: 'zealous-tracer/order', version: 1, id });
  });
});
