import type { Express } from 'express';
import { randomUUID } from 'node:crypto';
import request from 'supertest';
import type { DataSource } from 'typeorm';
import { message, takenIn, testApp } from '../http/testServer';

let app: Express;
let db: DataSource;
let stop: () => Promise<void>;
beforeAll(async () => {
  ({ app, db, stop } = await testApp('server_photos'));
});
afterAll(() => stop());

/** PNG of one pixel (the PNG specification's smallest colour image). */
const PNG = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
);
const begun = async (): Promise<string> => {
  const id = randomUUID();
  await request(app).post(`/api/orders/${id}/events`).send(takenIn()).expect(201);
  return id;
};
const put = (order: string, photo: string, bytes: Buffer, type = 'image/jpeg') =>
  request(app).put(`/api/orders/${order}/photos/${photo}`).set('Content-Type', type).send(bytes);

test('a picture is stored once, and comes back as what its bytes are, whatever it was called', async () => {
  const order = await begun();
  const photo = randomUUID();
  await put(order, photo, PNG, 'text/html').expect(201);
  await put(order, photo, PNG).expect(200);
  const { body, headers } = await request(app).get(`/api/orders/${order}/photos/${photo}`).expect(200);
  expect(headers['content-type']).toBe('image/png');
  expect(headers['x-content-type-options']).toBe('nosniff');
  expect(Buffer.compare(body as Buffer, PNG)).toBe(0);
});

test('what is no picture by its content, is empty or too large is refused with what to do', async () => {
  const order = await begun();
  const html = await put(order, randomUUID(), Buffer.from('<html><script>alert(1)</script>'), 'image/png').expect(415);
  expect(html.body.detail).toMatch(/JPEG, PNG or WebP/);
  await put(order, randomUUID(), Buffer.alloc(0)).expect(400);
  await put(order, randomUUID(), Buffer.alloc(3 * 1024 * 1024 + 1)).expect(413);
  const huge = Buffer.from(PNG);
  huge.writeUInt32BE(7000, 16);
  await put(order, randomUUID(), huge).expect(413);
  const svg = Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" width="4" height="4"></svg>');
  await put(order, randomUUID(), svg, 'image/svg+xml').expect(415);
});

test('a picture belongs to one order, and goes with it', async () => {
  const [order, other] = [await begun(), await begun()];
  const photo = randomUUID();
  await put(randomUUID(), photo, PNG).expect(404);
  await put(order, photo, PNG).expect(201);
  await put(other, photo, PNG).expect(409);
  await request(app).get(`/api/orders/${other}/photos/${photo}`).expect(404);
  await request(app).get(`/api/orders/${order}/photos/nonsense`).expect(404);
  const { rows } = await db
    .query(`select conname from pg_constraint where conrelid = 'photo'::regclass and confdeltype = 'c'`)
    .then((found: unknown[]) => ({ rows: found }));
  expect(rows).toHaveLength(1);
});

test('the order knows its pictures and their markers, also after it is closed', async () => {
  const order = await begun();
  const photoId = randomUUID();
  const event = (type: string, body: object) =>
    request(app).post(`/api/orders/${order}/events`).send(message(type, body));
  await event('photo-added', { photoId, about: 'order', widthPx: 1, heightPx: 1 }).expect(201);
  await event('photo-marked', { photoId, markers: [{ x: 0.4, y: 0.6, label: 'crack' }] }).expect(201);
  await event('photo-marked', { photoId: randomUUID(), markers: [] }).expect(409);
  await event('photo-marked', { photoId, markers: [{ x: 1.4, y: 0, label: 'off' }] }).expect(422);
});
