import { EventMessage, EventQuery, OrderQuery } from '@zealous/contracts';
import { recordMarkdown, recordOf, reduceOrder, type OrderEvent, type OrderRecord } from '@zealous/core';
import { isUUID } from 'class-validator';
import { Router, type Response } from 'express';
import type { DataSource } from 'typeorm';
import { PhotoRow } from '../db/entities';
import { notFound } from '../http/problem';
import { valid } from '../http/validate';
import { catalogueOf } from '../shop';
import { datesOf } from './dates';
import { photosRouter } from './photos';
import { ownerPdf, recordPdf, type Picture } from './recordPdf';
import { appendEvent, eventsAfter, listOrders, orderDocument } from './service';

export function ordersRouter(db: DataSource): Router {
  const router = Router();
  router.param('id', (_request, _response, next, id: string) => next(isUUID(id) ? undefined : notFound('work order')));

  router.get('/', async (request, response) => {
    response.json(await listOrders(db, await valid(OrderQuery, { ...request.query })));
  });

  router.get('/:id', async (request, response) => {
    response.json(await orderDocument(db, request.params.id));
  });

  router.get('/:id/events', async (request, response) => {
    const { after } = await valid(EventQuery, { ...request.query });
    response.json(await eventsAfter(db, request.params.id, after ?? 0));
  });

  router.post('/:id/events', async (request, response) => {
    const event = await valid(EventMessage, request.body);
    const stored = await appendEvent(db, request.params.id, { ...event } as OrderEvent);
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
    const { machine, events } = await orderDocument(db, id);
    const catalogue = await catalogueOf(db);
    const list = events.map((item) => item.event);
    return { record: recordOf(machine, catalogue, list), state: reduceOrder(machine, catalogue, list) };
  };
  const picturesOf = async (id: string, { pictures }: OrderRecord): Promise<readonly Picture[]> => {
    const rows = await db.getRepository(PhotoRow).findBy({ orderId: id });
    const byId = new Map(rows.map((row) => [row.id, row]));
    return pictures.flatMap(({ photoId, caption }) => {
      const row = byId.get(photoId);
      return row ? [{ caption, mime: row.mime, bytes: row.bytes }] : [];
    });
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
      sendPdf(response, `order-${record.number}`, await recordPdf(record, await picturesOf(id, record)));
    else throw notFound('form of the record; json, md and pdf are there');
  });

  router.get('/:id/owner.pdf', async (request, response) => {
    const { id } = request.params;
    const { record } = await recordFor(id);
    sendPdf(response, `owner-${record.number}`, await ownerPdf(record, await picturesOf(id, record)));
  });

  router.get('/:id/dates.ics', async (request, response) => {
    const { id } = request.params;
    const { record, state } = await recordFor(id);
    response.type('text/calendar; charset=utf-8').send(datesOf(id, record, state));
  });

  return router;
}
