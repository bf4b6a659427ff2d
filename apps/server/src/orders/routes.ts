import { EventMessage, EventQuery, OrderQuery } from '@zealous/contracts';
import { recordMarkdown, recordOf, reduceOrder, type OrderEvent, type OrderRecord } from '@zealous/core';
import { isUUID } from 'class-validator';
import { Router, type Response } from 'express';
import type { DataSource } from 'typeorm';
import { PhotoRow } from '../db/entities';
import { notFound, Problem } from '../http/problem';
import { valid } from '../http/validate';
import { catalogueOf } from '../shop';
import { datesOf } from './dates';
import type { Derived } from './derived';
import { photosRouter } from './photos';
import { MOST_PRINTED, PRINTED_PX, type Picture } from './recordPdf';
import { ownerSheet, recordSheet } from '../work/pool';
import { thumbnail } from '../pictures/normalise';
import { appendEvent } from './append';
import { eventsAfter, listOrders, orderDocument, standsAt } from './service';

export function ordersRouter(db: DataSource, derived: Derived): Router {
  const router = Router();
  router.param('id', (request, _response, next, id: string) => {
    request.params['id'] = id.toLowerCase();
    next(isUUID(id) ? undefined : notFound('work order'));
  });

  router.get('/', async (request, response) => {
    response.json(await listOrders(db, derived, await valid(OrderQuery, { ...request.query })));
  });

  router.get('/:id', async (request, response) => {
    response.json(await orderDocument(db, request.params.id));
  });

  router.get('/:id/events', async (request, response) => {
    const { after = 0, last } = await valid(EventQuery, { ...request.query });
    const { id } = request.params;
    if (last !== undefined && !(await standsAt(db, id, after, last)))
      throw new Problem(
        412,
        'Another past',
        'This server has other entries than the device knows, as after an older backup. The order is read anew; what is missing here is sent again.',
      );
    response.json(await eventsAfter(db, id, after));
  });

  router.post('/:id/events', async (request, response) => {
    const event = await valid(EventMessage, request.body);
    const stored = await appendEvent(db, request.params.id, { ...event } as OrderEvent, derived);
    response.status(stored.already ? 200 : 201).json(stored);
  });

  router.use('/:id/photos', photosRouter(db));

  router.get('/:id/order.json', async (request, response) => {
    const { id, machine, events } = await orderDocument(db, request.params.id);
    response.json({
      format: 'zealous-tracer/order',
      version: 1,
      id,
      machine,
      events: events.map((item) => item.event),
    });
  });

  const recordFor = async (id: string) => {
    const { machine, events, catalogue: own } = await orderDocument(db, id);
    const catalogue = own ?? (await catalogueOf(db));
    const list = events.map((item) => item.event);
    return { record: recordOf(machine, catalogue, list), state: reduceOrder(machine, catalogue, list) };
  };
  const picturesOf = async (id: string, { pictures }: OrderRecord): Promise<readonly Picture[]> => {
    const printed: Picture[] = [];
    // One after the other: a hundred pictures at once would be a hundred in memory.
    for (const { photoId, caption } of pictures) {
      if (printed.length >= MOST_PRINTED) break;
      const row = await db.getRepository(PhotoRow).findOneBy({ id: photoId, orderId: id });
      if (!row) continue;
      const bytes = await thumbnail(row.bytes, PRINTED_PX);
      printed.push({ caption, ...(bytes ? { bytes } : {}) });
    }
    return printed;
  };
  const sendPdf = (response: Response, name: string, bytes: Buffer): void => {
    response
      .type('application/pdf')
      .set('Content-Disposition', `inline; filename="${name.replace(/[^A-Za-z0-9._-]/g, '-')}.pdf"`)
      .send(bytes);
  };

  router.get('/:id/record.:form', async (request, response) => {
    const { id, form } = request.params;
    const { record } = await recordFor(id);
    if (form === 'json') response.json(record);
    else if (form === 'md') response.type('text/markdown; charset=utf-8').send(recordMarkdown(record));
    else if (form === 'pdf')
      sendPdf(
        response,
        `order-${record.number}`,
        await recordSheet({ record, pictures: await picturesOf(id, record) }),
      );
    else throw notFound('form of the record; json, md and pdf are there');
  });

  router.get('/:id/owner.pdf', async (request, response) => {
    const { id } = request.params;
    const { record } = await recordFor(id);
    sendPdf(response, `owner-${record.number}`, await ownerSheet({ record, pictures: await picturesOf(id, record) }));
  });

  router.get('/:id/dates.ics', async (request, response) => {
    const { id } = request.params;
    const { record, state } = await recordFor(id);
    response.type('text/calendar; charset=utf-8').send(datesOf(id, record, state));
  });

  return router;
}
