import { EventMessage, EventQuery, OrderQuery } from '@zealous/contracts';
import { recordMarkdown, recordOf, type OrderEvent } from '@zealous/core';
import { isUUID } from 'class-validator';
import { Router } from 'express';
import type { DataSource } from 'typeorm';
import { notFound } from '../http/problem';
import { valid } from '../http/validate';
import { catalogueOf } from '../shop';
import { photosRouter } from './photos';
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

  router.get('/:id/record.:form', async (request, response) => {
    const { machine, events } = await orderDocument(db, request.params.id);
    const record = recordOf(
      machine,
      await catalogueOf(db),
      events.map((item) => item.event),
    );
    if (request.params.form === 'json') response.json(record);
    else if (request.params.form === 'md') response.type('text/markdown; charset=utf-8').send(recordMarkdown(record));
    else throw notFound('form of the record; json and md are there');
  });

  return router;
}
