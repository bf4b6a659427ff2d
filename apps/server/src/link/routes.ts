import { LineAsk, LinkAddress, StandInDeed, TakeControl } from '@zealous/contracts';
import { Router } from 'express';
import { valid } from '../http/validate';
import type { Links } from './service';

const UUID = /^[0-9a-f-]{36}$/i;

export function linkRouter(links: Links): Router {
  const router = Router();
  router.get('/', async (_request, response) => {
    response.json(await links.addresses());
  });
  router.get('/:machine', async (request, response) => {
    const phone = typeof request.query['phone'] === 'string' ? request.query['phone'] : '';
    response.set('Cache-Control', 'no-store');
    response.json(await links.status(request.params.machine, UUID.test(phone) ? phone : undefined));
  });
  router.put('/:machine', async (request, response) => {
    const { address } = await valid(LinkAddress, request.body);
    response.json(await links.put(request.params.machine, address));
  });
  router.delete('/:machine', async (request, response) => {
    await links.drop(request.params.machine);
    response.status(204).end();
  });
  router.post('/:machine/take', async (request, response) => {
    response.json(await links.take(request.params.machine, await valid(TakeControl, request.body)));
  });
  router.post('/:machine/ask', async (request, response) => {
    response.json(await links.ask(request.params.machine, await valid(LineAsk, request.body)));
  });
  router.post('/:machine/stop', async (request, response) => {
    response.json(await links.emergency(request.params.machine));
  });
  router.post('/:machine/start-again', async (request, response) => {
    response.json(await links.startAgain(request.params.machine, await valid(TakeControl, request.body)));
  });
  router.get('/:machine/log', async (request, response) => {
    const text = await links.log(request.params.machine);
    response.set('Content-Disposition', 'attachment; filename="line.log"').type('text/plain').send(text);
  });
  router.post('/:machine/stand-in', async (request, response) => {
    response.json(await links.standIn(request.params.machine, await valid(StandInDeed, request.body)));
  });
  return router;
}
