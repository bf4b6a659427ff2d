import type { Express } from 'express';
import { randomBytes, randomUUID } from 'node:crypto';
import sharp from 'sharp';
import request from 'supertest';
import { crc32, deflateSync } from 'node:zlib';
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

test('a picture is stored once, and comes back written anew as a JPEG, whatever it was called', async () => {
  const order = await begun();
  const photo = randomUUID();
  await put(order, photo, PNG, 'text/html').expect(201);
  await put(order, photo, PNG).expect(200);
  const { body, headers } = await request(app).get(`/api/orders/${order}/photos/${photo}`).expect(200);
  expect(headers['content-type']).toBe('image/jpeg');
  expect(headers['x-content-type-options']).toBe('nosniff');
  expect(await sharp(body as Buffer).metadata()).toMatchObject({ format: 'jpeg', width: 1, height: 1 });
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

test('the same id with another picture is refused, and both are named', async () => {
  const order = await begun();
  const photo = randomUUID();
  await put(order, photo, PNG).expect(201);
  const { body } = await put(order, photo, png({ width: 2 })).expect(409);
  expect(body.stored.digest).toMatch(/^[0-9a-f]{64}$/);
  expect(body.sent.digest).not.toBe(body.stored.digest);
});

test('what a camera writes beside the picture is not kept, and what lay on its side stands upright', async () => {
  const order = await begun();
  const photo = randomUUID();
  const lying = await sharp({ create: { width: 40, height: 20, channels: 3, background: '#884422' } })
    .jpeg()
    .withExif({ IFD0: { Copyright: 'place and owner' } })
    .withMetadata({ orientation: 6 })
    .toBuffer();
  await put(order, photo, lying).expect(201);
  const { body } = await request(app).get(`/api/orders/${order}/photos/${photo}`).expect(200);
  const kept = await sharp(body as Buffer).metadata();
  expect(kept).toMatchObject({ width: 20, height: 40 });
  expect(kept.exif).toBeUndefined();
});

/** A chunk as the PNG specification has it: length, type, data, CRC-32 over type and data. */
function chunk(type: string, data: Buffer, says = data.length): Buffer {
  const head = Buffer.alloc(4);
  head.writeUInt32BE(says >>> 0);
  const body = Buffer.concat([Buffer.from(type, 'latin1'), data]);
  const tail = Buffer.alloc(4);
  tail.writeUInt32BE(crc32(body));
  return Buffer.concat([head, body, tail]);
}

interface Made {
  readonly width?: number;
  readonly height?: number;
  readonly colour?: number;
  /** In place of the packed rows. */
  readonly data?: Buffer;
  readonly rows?: Buffer;
  readonly extra?: readonly Buffer[];
}

/** A PNG of 8 bits a sample; colour type 6 has alpha. */
function png({ width = 1, height = 1, colour = 6, data, rows, extra = [] }: Made): Buffer {
  const header = Buffer.alloc(13);
  header.writeUInt32BE(width, 0);
  header.writeUInt32BE(height, 4);
  header[8] = 8;
  header[9] = colour;
  const plain = (): Buffer => rows ?? Buffer.alloc(height * (1 + width * (colour === 6 ? 4 : 3)));
  return Buffer.concat([
    Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
    chunk('IHDR', header),
    ...extra,
    chunk('IDAT', data ?? deflateSync(plain())),
    chunk('IEND', Buffer.alloc(0)),
  ]);
}

test('a picture full of detail is kept coarser rather than refused by the database', async () => {
  const order = await begun();
  // Noise on every pixel; written anew at the usual quality it would be more than a picture may have.
  const raw = randomBytes(2400 * 2400 * 3);
  const noise = await sharp(raw, { raw: { width: 2400, height: 2400, channels: 3 } })
    .jpeg({ quality: 60 })
    .toBuffer();
  expect((await sharp(noise).jpeg({ quality: 84 }).toBuffer()).length).toBeGreaterThan(3 * 1024 * 1024);
  expect(noise.length).toBeLessThan(3 * 1024 * 1024);
  await put(order, randomUUID(), noise).expect(201);
});

describe('hostile pictures are refused in words, and the server goes on', () => {
  const packed = deflateSync(Buffer.alloc(4 * 17));
  const long = png({ width: 4, height: 4 });
  const ftyp = Buffer.concat([
    Buffer.from([0, 0, 0, 24]),
    Buffer.from('ftypheicmif1heic', 'latin1'),
    Buffer.alloc(400_000),
  ]);
  const webp = Buffer.concat([Buffer.from('RIFF\xff\xff\xff\x7fWEBPVP8L', 'latin1'), Buffer.alloc(64, 0xff)]);
  test.each<readonly [string, Buffer, number]>([
    ['alpha, and data that is no zlib stream', png({ data: Buffer.from('no zlib stream at all') }), 422],
    ['data cut short', png({ width: 4, height: 4, data: packed.subarray(0, 6) }), 422],
    ['a row filter that does not exist', png({ rows: Buffer.from([9, 1, 2, 3, 4]) }), 422],
    ['a chunk that says it is 4 GB long', png({ extra: [chunk('tEXt', Buffer.alloc(8), 0xfffffff4)] }), 422],
    ['cut in the middle', long.subarray(0, long.length - 30), 422],
    ['only the signature', long.subarray(0, 8), 422],
    ['no pixel', png({ width: 0 }), 422],
    ['more pixels than memory', png({ width: 60_000, height: 60_000, data: packed }), 413],
    ['HEIF', ftyp, 415],
    ['zeros that begin like a JPEG', Buffer.concat([Buffer.from([0xff, 0xd8, 0xff]), Buffer.alloc(3_000_000)]), 422],
    ['a WebP without end', webp, 422],
    ['a drawing in XML', Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"/>'), 415],
  ])('%s', async (_what, bytes, status) => {
    const order = await begun();
    const { body } = await put(order, randomUUID(), bytes).expect(status);
    expect(body.detail).toMatch(/\.$/);
    await request(app).get('/api/health').expect(200);
  });

  test('a bomb, 300 MB behind a header of ten by ten, takes neither memory nor the event loop', async () => {
    const order = await begun();
    const bomb = png({ width: 10, height: 10, data: deflateSync(Buffer.alloc(300_000_000), { level: 9 }) });
    const before = process.memoryUsage().rss;
    const { status } = await put(order, randomUUID(), bomb);
    expect([201, 422]).toContain(status);
    expect(process.memoryUsage().rss - before).toBeLessThan(400_000_000);
  });

  test('while large pictures are decoded the server answers others', async () => {
    const order = await begun();
    const large = png({ width: 5000, height: 5000, colour: 2 });
    let done = false;
    const sent = Promise.all([1, 2, 3].map(() => put(order, randomUUID(), large).expect(201))).then(
      () => (done = true),
    );
    let answered = 0;
    while (!done && answered < 5000) {
      await request(app).get('/api/health').expect(200);
      answered++;
    }
    await sent;
    // With the decoding on the event loop it would be one at most.
    expect(answered).toBeGreaterThan(5);
  });

  test('one that an older version stored damaged is named in the record, which is printed all the same', async () => {
    const order = await begun();
    const photoId = randomUUID();
    await db.query(
      `insert into photo (id, order_id, mime, width_px, height_px, bytes) values ($1, $2, 'image/png', 1, 1, $3)`,
      [photoId, order, png({ data: Buffer.from('no zlib stream at all') })],
    );
    const added = message('photo-added', { photoId, about: 'order', widthPx: 1, heightPx: 1 });
    await request(app).post(`/api/orders/${order}/events`).send(added).expect(201);
    const pdf = await request(app).get(`/api/orders/${order}/record.pdf`).expect(200);
    expect((pdf.body as Buffer).subarray(0, 5).toString()).toBe('%PDF-');
    await request(app).get('/api/health').expect(200);
  });
});
