import type { Express } from 'express';
import { randomUUID } from 'node:crypto';
import request from 'supertest';
import { message, takenIn, testApp } from '../http/testServer';

let app: Express;
let stop: () => Promise<void>;
beforeAll(async () => {
  ({ app, stop } = await testApp('server_shop'));
});
afterAll(() => stop());

const shop = async () => (await request(app).get('/api/shop').expect(200)).body;
const change = (kind: string, id: string, body: object) =>
  request(app).put(`/api/shop/changes/${kind}/${id}`).send(body);

describe('the shop’s own changes', () => {
  test('are kept apart, can be taken back, and judge orders at once', async () => {
    const fields = {
      name: 'Look for sand',
      how: 'Tap the tube over white paper.',
      minutes: 1,
      heat: 'any',
      power: 'any',
      at: 'each',
      kinds: ['tube'],
      reach: 'station',
      needs: 'nothing',
      results: [
        { id: 'sand', label: 'Sand', when: { visible: ['dust'] } },
        { id: 'none', label: 'None' },
      ],
      miss: 0.1,
      falseAlarm: 0.05,
    };
    const order = randomUUID();
    await request(app).post(`/api/orders/${order}/events`).send(takenIn()).expect(201);
    const found = () => message('finding-recorded', { key: 'sand@tube-a', result: 'sand' });
    await request(app).post(`/api/orders/${order}/events`).send(found()).expect(409);
    await change('checks', 'sand', { op: 'add', fields, by: 'bench 1' }).expect(200);
    await request(app).post(`/api/orders/${order}/events`).send(found()).expect(201);
    expect((await shop()).catalogue.changes).toEqual([
      { kind: 'checks', id: 'sand', op: 'add', fields, by: 'bench 1' },
    ]);
    // What orders may name is retired, not removed.
    const { body } = await request(app).delete('/api/shop/changes/checks/sand').expect(409);
    expect(body.detail).toContain('retire');
    await request(app)
      .get(`/api/orders/${order}/record.md`)
      .expect(200)
      .expect(/Look for sand/);
  });

  test('a change that breaks the catalogue is refused with its place, and nothing is stored', async () => {
    const before = (await shop()).catalogue;
    const { body } = await change('modes', 'stub', { op: 'change', fields: { remedies: ['prayer'] } }).expect(422);
    expect(body).toMatchObject({
      path: expect.stringContaining('/changes/'),
      detail: expect.stringContaining('prayer'),
    });
    await change('spells', 'stub', { op: 'change' }).expect(404);
    await change('modes', 'stub', { op: 'improve' }).expect(422);
    expect((await shop()).catalogue).toEqual(before);
  });

  test('go out as a file and come back in, in place of what is there', async () => {
    const file = (await request(app).get('/api/shop/catalogue.json').expect(200)).body;
    const more = {
      ...file,
      changes: [...file.changes, { kind: 'modes', id: 'stub', op: 'change', fields: { weight: 4 } }],
    };
    await request(app).put('/api/shop/catalogue').send({ catalogue: more }).expect(200);
    expect((await shop()).catalogue.changes).toHaveLength(2);
    await request(app).delete('/api/shop/changes/modes/stub').expect(200);
    expect((await shop()).catalogue).toEqual(file);
    const bad = { ...file, changes: [{ kind: 'modes', id: 'stub', op: 'change', fields: { weight: 99 } }] };
    const { body } = await request(app).put('/api/shop/catalogue').send({ catalogue: bad }).expect(422);
    expect(body.path).toBe('/catalogue/changes/0/fields/weight');
  });
});

describe('what closed orders teach', () => {
  async function proved(): Promise<string> {
    const order = randomUUID();
    const send = (type: string, body: object) =>
      request(app)
        .post(`/api/orders/${order}/events`)
        .send(type === 'taken-in' ? takenIn({ lane: 'lane-a' }) : message(type, body))
        .expect(201);
    await send('taken-in', {});
    await send('finding-recorded', { key: 'lift-hub@hub', result: 'stub' });
    await send('cause-chosen', { station: 'hub', mode: 'stub', advised: true });
    await send('rung-tried', {
      stepId: 'rung:hub:stub:take-out',
      remedy: 'take-out',
      station: 'hub',
      mode: 'stub',
      outcome: 'cleared',
    });
    for (const proof of [
      'sensor',
      'hub-floats',
      'both-empty',
      'cold-pass',
      'power-cycle',
      'load-twice',
      'straight',
      'feed',
    ])
      await send('proof-recorded', { proof, passed: true });
    return order;
  }

  async function cured(): Promise<{ order: string; closing: string }> {
    const order = await proved();
    const closing = message('closed', { outcome: 'cured' });
    await request(app).post(`/api/orders/${order}/events`).send(closing).expect(201);
    return { order, closing: String(closing['id']) };
  }

  test('the demo’s closed order speaks; each further one is counted for its machine, its family and the shop', async () => {
    const before = (await shop()).learned;
    expect(before.shop.orders).toBe(1);
    await cured();
    const { learned } = await shop();
    expect(learned.shop.orders).toBe(2);
    expect(learned.machines.dunlin.modes.stub.found).toBe(1);
    expect(learned.families['hub-head'].orders).toBe(1);
  });

  test('a closing that is withdrawn takes its lesson with it, and the order is open again', async () => {
    const before = (await shop()).learned;
    const { order, closing } = await cured();
    expect((await shop()).learned.shop.orders).toBe(before.shop.orders + 1);
    await request(app)
      .post(`/api/orders/${order}/events`)
      .send(message('finding-recorded', { key: 'glide@hub', result: 'stiff' }))
      .expect(409);
    await request(app)
      .post(`/api/orders/${order}/events`)
      .send(message('event-withdrawn', { eventId: closing }))
      .expect(201);
    expect((await shop()).learned).toEqual(before);
    await request(app)
      .post(`/api/orders/${order}/events`)
      .send(message('finding-recorded', { key: 'glide@hub', result: 'stiff' }))
      .expect(201);
  });

  test('what comes while the lesson of a closing is reckoned is kept, and one closing sent twice teaches once', async () => {
    const before = (await shop()).learned;
    const order = await proved();
    const send = (body: object) => request(app).post(`/api/orders/${order}/events`).send(body);
    const closing = message('closed', { outcome: 'cured' });
    const note = message('note-added', { text: 'The lever was bent before.' });
    const [first, noted, second] = await Promise.all([send(closing), send(note), send(closing)]);
    expect(noted.status).toBe(201);
    expect([first.status, second.status].sort()).toEqual([200, 201]);
    const { events } = (await request(app).get(`/api/orders/${order}`).expect(200)).body;
    const kept = events.map(({ event }: { event: { id: string } }) => event.id);
    for (const { id } of [closing, note]) expect(kept.filter((other: string) => other === id)).toHaveLength(1);
    expect((await shop()).learned.shop.orders).toBe(before.shop.orders + 1);
  });

  test('counts go out, come in, add up, and what came in can be forgotten', async () => {
    const learned = (await request(app).get('/api/shop/learned.json').expect(200)).body;
    await request(app).post('/api/shop/learned').send({ learned }).expect(201);
    const both = await shop();
    expect(both.learned.shop.orders).toBe(2 * learned.shop.orders);
    expect(both.imports).toBe(1);
    await request(app).delete('/api/shop/learned/imported').expect(200);
    expect((await shop()).learned).toEqual(learned);
    const { body } = await request(app)
      .post('/api/shop/learned')
      .send({ learned: { ...learned, shop: {} } })
      .expect(422);
    expect(body.path).toContain('/learned/shop');
  });
});

describe('what the shop’s own orders say of remedies and parts', () => {
  const history = async () => (await request(app).get('/api/shop/history').expect(200)).body;

  test('tries by remedy and filament, without what was withdrawn', async () => {
    const order = randomUUID();
    const send = async (body: Record<string, unknown>): Promise<string> => {
      await request(app).post(`/api/orders/${order}/events`).send(body).expect(201);
      return String(body['id']);
    };
    const at = async () => {
      const { tried } = await history();
      return tried.find((row: { remedy: string; material: string }) => row.remedy === 'rod' && row.material === 'ASA');
    };
    await send(takenIn({ material: 'ASA' }));
    await send(message('cause-chosen', { station: 'break', mode: 'break-plug', advised: true }));
    const rung = (outcome: string) =>
      message('rung-tried', { stepId: 'rung:break:break-plug:rod', remedy: 'rod', outcome });
    await send(rung('no-change'));
    const wrong = await send(rung('cleared'));
    expect(await at()).toEqual({ remedy: 'rod', material: 'ASA', tried: 2, cleared: 1 });
    await send(message('event-withdrawn', { eventId: wrong }));
    expect(await at()).toEqual({ remedy: 'rod', material: 'ASA', tried: 1, cleared: 0 });
  });

  test('a part of a maker and batch whose place was renewed again is flagged', async () => {
    const fit = async (batch: string): Promise<void> => {
      const order = randomUUID();
      const send = (body: object) => request(app).post(`/api/orders/${order}/events`).send(body).expect(201);
      await send(takenIn({ machineId: 'limpet', symptoms: [] }));
      await send(message('part-replaced', { station: 'nozzle', part: 'nozzle', maker: 'Groyne Works', batch }));
    };
    await fit('G1');
    await fit('G2');
    const { parts } = await history();
    const of = (batch: string) => parts.find((row: { batch: string }) => row.batch === batch);
    expect(of('G1')).toMatchObject({ part: 'nozzle', maker: 'Groyne Works', machine: 'Limpet', again: true });
    expect(of('G2')).toMatchObject({ again: false });
  });

  test('a life is that of the part that came off, with what it was; solvents count by filament', async () => {
    const at = (hour: number): string => `2026-11-2${hour}T08:00:00.000Z`;
    const fit = async (day: number, body: Record<string, unknown>): Promise<void> => {
      const order = randomUUID();
      const send = (one: object) => request(app).post(`/api/orders/${order}/events`).send(one).expect(201);
      await send({ ...takenIn({ machineId: 'limpet', symptoms: [], material: 'PETG' }), at: at(day) });
      await send({ ...message('solvent-tried', { solvent: 'acetone', softened: day === 1 }), at: at(day) });
      await send({ ...message('part-replaced', { station: 'nozzle', part: 'nozzle', ...body }), at: at(day) });
    };
    await fit(1, { offer: 'hardened', maker: 'Skerry Parts', oldHours: 410 });
    await fit(2, { offer: 'brass', oldHours: 655 });
    const { lives, solvents } = await history();
    const own = lives.filter(({ hours }: { hours: number }) => hours === 410 || hours === 655);
    expect(own).toContainEqual({ part: 'nozzle', offer: 'hardened', maker: 'Skerry Parts', hours: 655, ended: true });
    expect(own.find(({ hours }: { hours: number }) => hours === 410)).not.toMatchObject({ offer: 'hardened' });
    expect(solvents).toContainEqual({ solvent: 'acetone', material: 'PETG', tried: 2, softened: 1 });
  });

  test('what an hour is worth is a change like any other, and is checked', async () => {
    const rate = (hourlyRate: unknown) =>
      request(app).put('/api/shop/changes/terms/shop').send({ op: 'change', fields: { hourlyRate } });
    await rate(-4).expect(422);
    const { body } = await rate(48).expect(200);
    expect(body.changes).toContainEqual(expect.objectContaining({ kind: 'terms', fields: { hourlyRate: 48 } }));
    await request(app).delete('/api/shop/changes/terms/shop').expect(200);
  });
});
