import { MAX_PHOTO_BYTES, MAX_PHOTO_PX } from '@zealous/contracts';
import { isUUID } from 'class-validator';
import express, { Router } from 'express';
import { imageSize } from 'image-size';
import type { DataSource } from 'typeorm';
import { OrderRow, PhotoRow } from '../db/entities';
import { notFound, Problem } from '../http/problem';

const MIMES: Readonly<Record<string, string>> = { jpg: 'image/jpeg', png: 'image/png', webp: 'image/webp' };
const YEAR_S = 31_536_000;

/** What the bytes themselves say they are; what the sender says of them does not count. */
function inspect(bytes: Buffer): { readonly mime: string; readonly widthPx: number; readonly heightPx: number } {
  const wrong = new Problem(415, 'Not a picture', 'Send a JPEG, PNG or WebP picture; this is none by its content.');
  let found: ReturnType<typeof imageSize>;
  try {
    found = imageSize(bytes);
  } catch {
    throw wrong;
  }
  const mime = MIMES[found.type ?? ''];
  if (!mime) throw wrong;
  const { width, height } = found;
  if (!(width >= 1 && height >= 1 && width <= MAX_PHOTO_PX && height <= MAX_PHOTO_PX))
    throw new Problem(413, 'Too large', `A picture may have ${MAX_PHOTO_PX} pixels a side at most; reduce it first.`);
  return { mime, widthPx: width, heightPx: height };
}

/** Pictures of an order: stored once under the id made where they were taken. */
export function photosRouter(db: DataSource): Router {
  const router = Router({ mergeParams: true });
  router.param('photo', (_request, _response, next, id: string) => next(isUUID(id) ? undefined : notFound('picture')));

  router.put('/:photo', express.raw({ type: () => true, limit: MAX_PHOTO_BYTES }), async (request, response) => {
    const { id: orderId, photo: id } = request.params as unknown as { readonly id: string; readonly photo: string };
    const bytes: unknown = request.body;
    if (!Buffer.isBuffer(bytes) || bytes.length === 0)
      throw new Problem(400, 'Empty', 'Send the picture as the body of the message.');
    const found = inspect(bytes);
    if (!(await db.getRepository(OrderRow).existsBy({ id: orderId }))) throw notFound('work order');
    const photos = db.getRepository(PhotoRow);
    const known = await photos.findOne({ where: { id }, select: { id: true, orderId: true } });
    if (known && known.orderId !== orderId)
      throw new Problem(409, 'Taken', 'Another order has a picture with this id.');
    if (known) {
      response.status(200).json({ id, already: true });
      return;
    }
    await photos
      .createQueryBuilder()
      .insert()
      .values({ id, orderId, ...found, bytes })
      .orIgnore()
      .execute();
    response.status(201).json({ id });
  });

  router.get('/:photo', async (request, response) => {
    const { id: orderId, photo: id } = request.params as unknown as { readonly id: string; readonly photo: string };
    const photo = await db.getRepository(PhotoRow).findOneBy({ id, orderId });
    if (!photo) throw notFound('picture');
    response
      .type(photo.mime)
      .set({ 'Cache-Control': `private, max-age=${YEAR_S}, immutable`, 'X-Content-Type-Options': 'nosniff' })
      .send(photo.bytes);
  });

  return router;
}
