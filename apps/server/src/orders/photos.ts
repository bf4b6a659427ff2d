import { MAX_PHOTO_BYTES } from '@zealous/contracts';
import { isUUID } from 'class-validator';
import express, { Router, type RequestHandler } from 'express';
import { createHash } from 'node:crypto';
import type { DataSource } from 'typeorm';
import { OrderRow, PhotoRow } from '../db/entities';
import { notFound, Problem } from '../http/problem';
import { normalise } from '../pictures/normalise';

const YEAR_S = 31_536_000;
const digestOf = (bytes: Buffer): string => createHash('sha256').update(bytes).digest('hex');

interface PhotoParams {
  readonly id: string;
  readonly photo: string;
}

/** Pictures of an order: stored once under the id made where they were taken. */
export function photosRouter(db: DataSource): Router {
  const router = Router({ mergeParams: true });
  router.param('photo', (request, _response, next, id: string) => {
    request.params['photo'] = id.toLowerCase();
    next(isUUID(id) ? undefined : notFound('picture'));
  });

  /** The order is looked up before a byte of the picture is read. */
  const ofAnOrder: RequestHandler = async (request, _response, next) => {
    const { id } = request.params as unknown as PhotoParams;
    if (!(await db.getRepository(OrderRow).existsBy({ id }))) throw notFound('work order');
    next();
  };

  router.put(
    '/:photo',
    ofAnOrder,
    express.raw({ type: () => true, limit: MAX_PHOTO_BYTES, inflate: false }),
    async (request, response) => {
      const { id: orderId, photo: id } = request.params as unknown as PhotoParams;
      const bytes: unknown = request.body;
      if (!Buffer.isBuffer(bytes) || bytes.length === 0)
        throw new Problem(400, 'Empty', 'Send the picture as the body of the message.');
      const digest = digestOf(bytes);
      const photos = db.getRepository(PhotoRow);
      const same = async (): Promise<boolean> => {
        const known = await photos.findOne({ where: { id }, select: { id: true, orderId: true, digest: true } });
        if (!known) return false;
        if (known.orderId !== orderId) throw new Problem(409, 'Taken', 'Another order has a picture with this id.');
        // What an older version stored has no digest; it cannot be told apart and is taken for the same.
        if (known.digest !== null && known.digest !== digest)
          throw new Problem(409, 'Another picture', 'This id has another picture already. Take it again.', '', {
            stored: { digest: known.digest },
            sent: { digest },
          });
        return true;
      };
      if (!(await same())) {
        const sound = await normalise(bytes);
        const { raw } = await photos
          .createQueryBuilder()
          .insert()
          .values({ id, orderId, digest, ...sound })
          .orIgnore()
          .returning('id')
          .execute();
        if ((raw as unknown[]).length > 0) {
          response.status(201).json({ id });
          return;
        }
        await same();
      }
      response.status(200).json({ id, already: true });
    },
  );

  router.get('/:photo', async (request, response) => {
    const { id: orderId, photo: id } = request.params as unknown as PhotoParams;
    const photo = await db.getRepository(PhotoRow).findOneBy({ id, orderId });
    if (!photo) throw notFound('picture');
    response
      .type(photo.mime)
      .set({ 'Cache-Control': `private, max-age=${YEAR_S}, immutable`, 'X-Content-Type-Options': 'nosniff' })
      .send(photo.bytes);
  });

  return router;
}
