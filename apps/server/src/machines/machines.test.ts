import { machineOfFamily, type Machine } from '@zealous/core';
import type { Express } from 'express';
import { randomUUID } from 'node:crypto';
import request from 'supertest';
import { message, takenIn, testApp } from '../http/testServer';

let app: Express;
let stop: () => Promise<void>;
beforeAll(async () => {
  ({ app, stop } = await testApp('server_machines'));
});
afterAll(() => stop());

const fetched = async (id: string): Promise<Machine> =>
  (await request(app).get(`/api/machines/${id}`).expect(200)).body;

test('the demo has a machine of every family', async () => {
  const { body } = await request(app).get('/api/machines').expect(200);
  expect(new Set(body.map((machine: { family: string }) => machine.family)).size).toBe(10);
});

test('a machine made from a template is kept; its id only once', async () => {
  const machine = machineOfFamily('geared-flexible', 'razor-shell', 'Razor Shell');
  await request(app).post('/api/machines').send({ machine }).expect(201);
  expect(await fetched('razor-shell')).toEqual(machine);
  const again = await request(app).post('/api/machines').send({ machine }).expect(409);
  expect(again.body).toMatchObject({ path: '/machine/id', detail: expect.stringContaining('already') });
});

test('an older version of the format is brought to the present one', async () => {
  const machine = { ...machineOfFamily('bowden-open', 'old-whelk', 'Old Whelk'), version: 1, family: 'Bowden of old' };
  await request(app).post('/api/machines').send({ machine }).expect(201);
  expect(await fetched('old-whelk')).toMatchObject({ version: 3, family: 'bowden-open' });
});

test.each([
  ['an unknown field', (m: Machine) => ({ ...m, colour: 'red' }), '/machine/colour'],
  [
    'no nozzle',
    (m: Machine) => ({ ...m, runs: m.runs.map((r) => ({ ...r, stations: r.stations.slice(0, 3) })) }),
    '/machine/runs',
  ],
  ['a newer version', (m: Machine) => ({ ...m, version: 9 }), '/machine/version'],
])('%s is refused with its place', async (_name, change, path) => {
  const machine = change(machineOfFamily('bowden-open', 'broken', 'Broken'));
  const { body } = await request(app).post('/api/machines').send({ machine }).expect(422);
  expect(body.path).toContain(path);
});

test('an open order keeps the machine as it was; two that change it at once are told', async () => {
  const order = randomUUID();
  await request(app)
    .post(`/api/orders/${order}/events`)
    .send(takenIn({ machineId: 'limpet', symptoms: [] }))
    .expect(201);
  const was = await fetched('limpet');
  const changed = { ...was, name: 'Limpet the second' };
  await request(app).put('/api/machines/limpet').send({ machine: changed, was }).expect(200);
  expect((await fetched('limpet')).name).toBe('Limpet the second');
  const { body } = await request(app).get(`/api/orders/${order}`).expect(200);
  expect(body.machine.name).toBe('Limpet');
  const late = await request(app)
    .put('/api/machines/limpet')
    .send({ machine: { ...was, name: 'Third' }, was })
    .expect(409);
  expect(late.body.detail).toContain('meanwhile');
  expect((await fetched('limpet')).name).toBe('Limpet the second');
});

test('the id of a machine stays, and one that is not there cannot be changed', async () => {
  const was = await fetched('sandeel');
  await request(app)
    .put('/api/machines/sandeel')
    .send({ machine: { ...was, id: 'eel' }, was })
    .expect(422);
  const ghost = machineOfFamily('bowden-open', 'ghost', 'Ghost');
  await request(app).put('/api/machines/ghost').send({ machine: ghost, was: ghost }).expect(404);
});

test('a retired machine leaves the lists, keeps its orders and comes back; not while an order of it is open', async () => {
  const listed = async (query = ''): Promise<readonly string[]> =>
    (await request(app).get(`/api/machines${query}`).expect(200)).body.map(({ id }: { id: string }) => id);
  const retire = (id: string, retired: unknown) => request(app).put(`/api/machines/${id}/retired`).send({ retired });
  const order = randomUUID();
  await request(app)
    .post(`/api/orders/${order}/events`)
    .send(takenIn({ machineId: 'razor-shell', symptoms: [] }))
    .expect(201);
  const open = await retire('razor-shell', true).expect(409);
  expect(open.body.detail).toBe('An order of it is open. Close what is open, then retire the machine.');
  await request(app)
    .post(`/api/orders/${order}/events`)
    .send(message('closed', { outcome: 'mistake', minutes: 0 }))
    .expect(201);
  await retire('razor-shell', true).expect(200);
  expect(await listed()).not.toContain('razor-shell');
  expect(await listed('?retired=true')).toEqual(['razor-shell']);
  expect((await fetched('razor-shell')).name).toBe('Razor Shell');
  // A changed description does not bring it back.
  const was = await fetched('razor-shell');
  await request(app)
    .put('/api/machines/razor-shell')
    .send({ machine: { ...was, name: 'Razor' }, was })
    .expect(200);
  expect(await listed('?retired=true')).toEqual(['razor-shell']);
  await retire('razor-shell', false).expect(200);
  expect(await listed()).toContain('razor-shell');
  await retire('nobody', true).expect(404);
  await retire('razor-shell', 'yes').expect(422);
});
