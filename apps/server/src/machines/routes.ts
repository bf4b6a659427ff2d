import { Router } from 'express';
import type { DataSource } from 'typeorm';
import { listMachines, machineById } from './service';

export function machinesRouter(db: DataSource): Router {
  const router = Router();
  router.get('/', async (_request, response) => {
    response.json(await listMachines(db));
  });
  router.get('/:id', async (request, response) => {
    response.json(await machineById(db, request.params.id));
  });
  return router;
}
