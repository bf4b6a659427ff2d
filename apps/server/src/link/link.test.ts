import type { LinkResult } from '@zealous/contracts';
import { commandsOf, parseTemperatureLog, type Machine } from '@zealous/core';
import { SOUND } from '@zealous/core/standIn';
import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { once } from 'node:events';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import request from 'supertest';
import { message, takenIn, testApp, type TestApp } from '../http/testServer';
import { replayed } from './replay';
import { LineSession, resultOf } from './session';
import { standIns, type StandIns } from './standInServer';

const limpet = JSON.parse(readFileSync(join(__dirname, '../../../../demo/machines/limpet.json'), 'utf8')) as Machine;
/** Machine seconds a second: a hot end heats in a blink. */
const SPEED = 200;

let running: TestApp;
let printers: StandIns;
const order = randomUUID();
const phone = randomUUID();
const other = randomUUID();
const at = '/api/link/limpet';

beforeAll(async () => {
  printers = standIns([limpet], SPEED, { limpet: { ...SOUND, fed: 0.84 } });
  printers.server.listen(0, '127.0.0.1');
  await once(printers.server, 'listening');
  process.env['ZT_STANDIN'] = `tcp://127.0.0.1:${(printers.server.address() as AddressInfo).port}`;
  running = await testApp('server_link');
  await request(running.app)
    .post(`/api/orders/${order}/events`)
    .send(takenIn({ machineId: 'limpet', material: 'PLA', symptoms: ['thin'] }))
    .expect(201);
  await request(running.app)
    .post(`/api/orders/${order}/events`)
    .send(message('bench-changed', { power: 'on' }))
    .expect(201);
});
afterAll(async () => {
  printers.stop();
  await running.stop();
});

interface Status {
  readonly state: string;
  readonly problem?: string;
  readonly temperatureC?: number;
  readonly targetC?: number;
  readonly idleOffS?: number;
  readonly holder?: { readonly by: string };
}
const status = async (): Promise<Status> => (await request(running.app).get(`${at}?phone=${phone}`)).body as Status;
const until = async (fits: (now: Status) => boolean): Promise<Status> => {
  for (let i = 0; i < 2_000; i++) {
    const now = await status();
    if (fits(now)) return now;
    await new Promise((resolve) => setTimeout(resolve, 30));
  }
  throw new Error(`it stays so: ${JSON.stringify(await status())}`);
};
const ask = (intent: object, who = phone, of = order): request.Test =>
  request(running.app).post(`${at}/ask`).send({ phone: who, order: of, intent });
const take = (who = phone, more: object = {}): request.Test =>
  request(running.app)
    .post(`${at}/take`)
    .send({ phone: who, by: who === phone ? 'bench 1' : 'bench 2', ...more });

test('a machine without a line is told so, and an address that is none is refused', async () => {
  expect((await request(running.app).get('/api/link/whelk')).status).toBe(404);
  const put = (address: string): request.Test => request(running.app).put('/api/link/whelk').send({ address });
  expect((await put('http://somewhere')).body).toMatchObject({ status: 422, path: '/address' });
  expect((await request(running.app).put('/api/link/nobody').send({ address: 'stand-in' })).status).toBe(404);
  // A port where nobody is: the page says that it is lost, and nothing ends in an error.
  expect((await put('tcp://127.0.0.1:9')).status).toBe(200);
  for (;;) {
    const { body } = await request(running.app).get('/api/link/whelk');
    if (body.state === 'lost') break;
    await new Promise((resolve) => setTimeout(resolve, 20));
  }
  expect((await request(running.app).delete('/api/link/whelk')).status).toBe(204);
});

test('only who has the machine in hand may move it, and another phone sees who has', async () => {
  await until(({ state }) => state === 'up');
  expect((await ask({ do: 'target', c: 0 })).body).toMatchObject({ status: 409, title: 'In other hands' });
  expect((await take()).body).toMatchObject({ holder: { by: 'bench 1' } });
  expect((await take(other)).body.detail).toMatch(/bench 1 has this machine in hand/);
  expect((await take(other, { force: true })).status).toBe(200);
  expect((await ask({ do: 'sensors' })).status).toBe(409);
  expect((await take(phone, { force: true })).status).toBe(200);
});

test('it heats within the path’s limits, feeds when it is hot, and says what came', async () => {
  await take();
  expect((await ask({ do: 'feed', mm: 100, mmPerS: 5 })).body.detail).toMatch(/cold nozzle/);
  expect((await ask({ do: 'target', c: 400 })).body.detail).toMatch(/takes \d+ °C for long/);
  expect((await ask({ do: 'target' })).status).toBe(422);
  expect((await ask({ do: 'target', c: 208 })).status).toBe(200);
  await until(({ temperatureC = 0 }) => temperatureC > 205);
  const fed = await ask({ do: 'feed', mm: 100, mmPerS: 5 });
  expect(fed.body).toMatchObject({ atTheBench: 'the strand moved 84.0 mm' });
  const steps = await ask({ do: 'read-steps' });
  expect(steps.body.stepsPerMm).toBeGreaterThan(0);
  expect((await ask({ do: 'store-steps', stepsPerMm: 401.5 })).body.stepsPerMm).toBe(401.5);
  expect(printers.printer('limpet')?.stored).toBe(401.5);
  await request(running.app).post(`${at}/stand-in`).send({ strand: 'out' }).expect(200);
  expect((await ask({ do: 'sensors' })).body.filament).toBe(false);
});

test('what is open on the bench of the order forbids heat and feeding, whatever the page says', async () => {
  await take();
  const opened = randomUUID();
  const send = (body: object, type: string): Promise<unknown> =>
    Promise.resolve(request(running.app).post(`/api/orders/${opened}/events`).send(message(type, body)).expect(201));
  await request(running.app)
    .post(`/api/orders/${opened}/events`)
    .send(takenIn({ machineId: 'limpet', number: 'open', material: 'PLA' }))
    .expect(201);
  const heater = limpet.parts.find(({ heats }) => heats)?.id ?? '';
  await send({ power: 'off', readingC: 25 }, 'bench-changed');
  await send({ off: [heater] }, 'parts-moved');
  expect((await ask({ do: 'target', c: 200 }, phone, opened)).body.detail).toMatch(/It needs/);
  expect((await ask({ do: 'target', c: 0 }, phone, opened)).status).toBe(200);
  expect((await ask({ do: 'target', c: 200 }, phone, randomUUID())).status).toBe(404);
});

test('a garbled answer and a delay cost time, and nothing else', async () => {
  await take();
  await request(running.app).post(`${at}/stand-in`).send({ garble: 2, delayMs: 30 }).expect(200);
  for (let i = 0; i < 4; i++) expect((await ask({ do: 'position' })).body).toHaveProperty('positionMm');
  await request(running.app).post(`${at}/stand-in`).send({ delayMs: 0 }).expect(200);
  expect((await request(running.app).get(`${at}/log`)).text).toMatch(/ < #/);
});

test('a line that drops while it is hot comes back with target zero, and says what it was', async () => {
  await take();
  await ask({ do: 'target', c: 208 }).expect(200);
  await until(({ targetC }) => targetC === 208);
  await request(running.app).post(`${at}/stand-in`).send({ dropS: 1 }).expect(200);
  const lost = await until(({ state }) => state === 'lost');
  expect(lost).toMatchObject({ lostAtTargetC: 208, idleOffS: 300 });
  // The page cannot stop it now, and says so.
  expect((await request(running.app).post(`${at}/stop`)).body.detail).toMatch(/Go to the machine/);
  expect((await ask({ do: 'position' })).status).toBeGreaterThanOrEqual(409);
  await until(({ state }) => state === 'up');
  expect(printers.printer('limpet')?.target).toBe(0);
});

test('the emergency stop needs nobody’s leave, and after it somebody starts again at the machine', async () => {
  await take(other, { force: true });
  await request(running.app).post(`${at}/stop`).expect(200);
  await until(({ state }) => state === 'halted');
  expect(printers.printer('limpet')?.target).toBe(0);
  expect((await ask({ do: 'sensors' }, other)).status).toBe(409);
  expect(
    (await request(running.app).post(`${at}/start-again`).send({ phone: other, by: 'bench 2' })).body,
  ).toMatchObject({ holder: { by: 'bench 2' } });
  await until(({ state }) => state === 'up');
  expect((await request(running.app).post(`${at}/start-again`).send({ phone: other, by: 'bench 2' })).status).toBe(409);
});

test('a machine that was stopped and started at its own switch comes back by itself', async () => {
  await request(running.app).post(`${at}/stop`).expect(200);
  await until(({ state }) => state === 'halted');
  // Its line goes with its power; the board that comes back knows nothing of the stop.
  printers.printer('limpet')?.receive('M999');
  printers.cut('limpet');
  await until(({ state }) => state === 'up');
});

test('the log of the line is read as a temperature log', async () => {
  const { text } = await request(running.app).get(`${at}/log`);
  const log = parseTemperatureLog(text);
  expect(log.length).toBeGreaterThan(10);
  expect(Math.max(...log.map(({ temperatureC }) => temperatureC))).toBeGreaterThan(200);
  expect(log.every(({ atS }, i) => i === 0 || atS >= (log[i - 1]?.atS ?? 0))).toBe(true);
});

test('a saved log can be played again: the same questions, the same answers', async () => {
  await take(phone, { force: true });
  const { length } = (await request(running.app).get(`${at}/log`)).text;
  const asked = [(await ask({ do: 'read-steps' })).body, (await ask({ do: 'sensors' })).body] as readonly LinkResult[];
  const { text } = await request(running.app).get(`${at}/log`);
  const line = new LineSession('limpet', () => Promise.resolve(replayed(text.slice(length))), { pollMs: 10_000 });
  const again: LinkResult[] = [];
  for (const what of ['read-steps', 'sensors'] as const)
    again.push(resultOf(await line.run(commandsOf({ do: what })), undefined));
  expect(again[0]?.stepsPerMm).toBe(asked[0]?.stepsPerMm);
  expect(again[1]?.switches?.map(({ name }) => name)).toEqual(asked[1]?.switches?.map(({ name }) => name));
  line.close();
});

test('heat that was asked for here goes off when nobody looks any more', async () => {
  await take(phone, { force: true });
  await ask({ do: 'target', c: 100 }).expect(200);
  const printer = printers.printer('limpet');
  expect(printer?.target).toBe(100);
  for (let i = 0; i < 1_000 && printer?.target !== 0; i++) await new Promise((resolve) => setTimeout(resolve, 20));
  expect(printer?.target).toBe(0);
});

test('a line that is given up while it heats sets the target to zero first', async () => {
  await take(phone, { force: true });
  await ask({ do: 'target', c: 100 }).expect(200);
  await until(({ targetC }) => targetC === 100);
  await request(running.app).delete('/api/link/limpet').expect(204);
  for (let i = 0; i < 500 && printers.printer('limpet')?.target !== 0; i++)
    await new Promise((resolve) => setTimeout(resolve, 20));
  expect(printers.printer('limpet')?.target).toBe(0);
  await request(running.app).put('/api/link/limpet').send({ address: 'stand-in' }).expect(200);
});

test('a machine that starts anew is talked to anew', async () => {
  await until(({ state }) => state === 'up');
  printers.say('limpet', 'start');
  await until(({ state }) => state === 'lost');
  const up = await until(({ state }) => state === 'up');
  expect(up.targetC ?? 0).toBe(0);
});

test('a serial port that is not there is said in words', async () => {
  await request(running.app).put('/api/link/whelk').send({ address: 'serial:/dev/zt-none@115200' }).expect(200);
  for (let i = 0; i < 500; i++) {
    const { body } = await request(running.app).get('/api/link/whelk');
    if (body.state === 'lost') {
      expect(body.problem).toMatch(/zt-none/);
      break;
    }
    await new Promise((resolve) => setTimeout(resolve, 20));
  }
  expect((await request(running.app).get('/api/link/whelk')).body.state).toBe('lost');
  await request(running.app).delete('/api/link/whelk').expect(204);
});

test('only a simulated printer can be played with', async () => {
  await request(running.app).put('/api/link/whelk').send({ address: process.env['ZT_STANDIN'] }).expect(200);
  expect((await request(running.app).post('/api/link/whelk/stand-in').send({ strand: 'in' })).status).toBe(409);
  await request(running.app).delete('/api/link/whelk').expect(204);
});
