import type { Express } from 'express';
import { randomUUID } from 'node:crypto';
import { inflateSync } from 'node:zlib';
import request from 'supertest';
import { message, takenIn, testApp } from '../http/testServer';

const CLOSED = '5a170001-0000-4000-8000-0000000000aa';
let app: Express;
let stop: () => Promise<void>;
beforeAll(async () => {
  ({ app, stop } = await testApp('server_record'));
});
afterAll(() => stop());

/** Pages of a PDF by its page objects; the text streams are packed and need not be read for it. */
const pages = (pdf: Buffer): number => pdf.toString('latin1').match(/\/Type \/Page\b/g)?.length ?? 0;
const event = (order: string, type: string, body: object) =>
  request(app).post(`/api/orders/${order}/events`).send(message(type, body));
const begun = async (): Promise<string> => {
  const id = randomUUID();
  await request(app).post(`/api/orders/${id}/events`).send(takenIn()).expect(201);
  return id;
};

test('the record is a PDF with its fonts in it, and the owner gets one page', async () => {
  const whole = await request(app).get(`/api/orders/${CLOSED}/record.pdf`).expect(200).responseType('blob');
  expect(whole.headers['content-type']).toBe('application/pdf');
  const pdf = whole.body as Buffer;
  expect(pdf.subarray(0, 5).toString()).toBe('%PDF-');
  expect(pdf.toString('latin1')).toContain('AtkinsonHyperlegibleNext');
  expect(pages(pdf)).toBeGreaterThanOrEqual(1);
  const owner = await request(app).get(`/api/orders/${CLOSED}/owner.pdf`).expect(200).responseType('blob');
  expect(pages(owner.body as Buffer)).toBe(1);
  // Streams can be unpacked: the file is whole.
  const stream = /stream\r?\n/.exec(pdf.toString('latin1'));
  expect(stream).not.toBeNull();
  const from = (stream?.index ?? 0) + (stream?.[0].length ?? 0);
  expect(inflateSync(pdf.subarray(from)).length).toBeGreaterThan(10);
});

test('an order with a picture prints it; one that never came does not stop the record', async () => {
  const order = await begun();
  const before = (await request(app).get(`/api/orders/${order}/record.pdf`).responseType('blob')).body as Buffer;
  const png = Buffer.from(
    'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
    'base64',
  );
  for (const bytes of [png, undefined]) {
    const photoId = randomUUID();
    if (bytes)
      await request(app)
        .put(`/api/orders/${order}/photos/${photoId}`)
        .set('Content-Type', 'image/png')
        .send(bytes)
        .expect(201);
    await event(order, 'photo-added', { photoId, about: 'order', caption: 'stub', widthPx: 1, heightPx: 1 }).expect(
      201,
    );
  }
  const { body } = await request(app).get(`/api/orders/${order}/record.pdf`).expect(200).responseType('blob');
  expect((body as Buffer).toString('latin1')).toContain('/Subtype /Image');
  expect(before.toString('latin1')).not.toContain('/Subtype /Image');
});

test('a soak that runs and a follow-up are dates that a calendar takes; without any, it says so', async () => {
  const order = await begun();
  await request(app).get(`/api/orders/${order}/dates.ics`).expect(404);
  await event(order, 'timer-started', {
    timerId: 'rung:break:break-plug:solvent-soak',
    label: 'Solvent soak',
    minutes: 1440,
  }).expect(201);
  const { text } = await request(app).get(`/api/orders/${order}/dates.ics`).expect(200);
  // RFC 5545: calendar, event, UTC start, alarm.
  expect(text).toMatch(/^BEGIN:VCALENDAR\r\n/);
  expect(text).toMatch(/SUMMARY:Solvent soak \(Dunlin\)/);
  expect(text).toMatch(/DTSTART:\d{8}T\d{6}Z/);
  expect(text).toContain('BEGIN:VALARM');
  expect(text).toMatch(/TRIGGER;VALUE=DATE-TIME:\d{8}T\d{6}Z\r\n/);
  const closed = await request(app).get(`/api/orders/${CLOSED}/dates.ics`).expect(200);
  expect(closed.text).toMatch(/SUMMARY:Look again: Whelk/);
});

test('what was charged is minutes at the rate and the parts', async () => {
  const order = await begun();
  await event(order, 'part-replaced', {
    station: 'nozzle',
    part: 'nozzle',
    price: 8,
    maker: 'Driftwood',
    batch: 'B7',
    hours: 0,
    oldHours: 540,
    genuine: 'yes',
  }).expect(201);
  await event(order, 'closed', {
    outcome: 'given-back',
    minutes: 90,
    hourlyRate: 40,
    watch: 'the tip',
    watchOn: '2026-12-10',
  }).expect(201);
  const { body } = await request(app).get(`/api/orders/${order}/record.json`).expect(200);
  expect(body.charged).toEqual({ hourlyRate: 40, work: 60, parts: 8, total: 68 });
  const { text } = await request(app).get(`/api/orders/${order}/record.md`).expect(200);
  expect(text).toContain('Driftwood, batch B7, genuine, 0 h on it, the old one had 540 h, price 8');
  expect(text).toContain('Look again on 2026-12-10');
  const dates = await request(app).get(`/api/orders/${order}/dates.ics`).expect(200);
  expect(dates.text).toContain('DTSTART:20261210T090000Z');
});

test('the shop’s own name stands on the whole record and on the owner’s page; what was closed before is printed as it was', async () => {
  const closed = async (): Promise<string> => {
    const order = await begun();
    await event(order, 'closed', { outcome: 'given-back', minutes: 30 }).expect(201);
    return order;
  };
  const sizes = (order: string): Promise<readonly number[]> =>
    Promise.all(
      ['record', 'owner'].map(async (name) => {
        const { body } = await request(app).get(`/api/orders/${order}/${name}.pdf`).expect(200).responseType('blob');
        return (body as Buffer).length;
      }),
    );
  const old = await closed();
  const before = await sizes(old);
  const fields = { shop: 'Repairs at the Quay', address: 'Quay 4, beside the crane', currency: 'crowns' };
  await request(app).put('/api/shop/changes/terms/shop').send({ op: 'change', fields, by: 'bench 1' }).expect(200);
  const order = await closed();
  const { text } = await request(app).get(`/api/orders/${order}/record.md`).expect(200);
  expect(text).toContain('**By:** Repairs at the Quay, Quay 4, beside the crane');
  expect(text).toContain('18.00 crowns');
  const after = await sizes(order);
  after.forEach((size, i) => expect(size).toBeGreaterThan(before[i] ?? 0));
  expect(await sizes(old)).toEqual(before);
});
