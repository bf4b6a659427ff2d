import { migrateMachine, type Machine } from '@zealous/core';
import { Router } from 'express';
import type { DataSource } from 'typeorm';
import { addMachine, changeMachine, listMachines, machineById, retireMachine } from './service';
import { valid } from '../http/validate';
import { ChangedMachine, MachineRetired, NewMachine } from '@zealous/contracts';

export function machinesRouter(db: DataSource): Router {
  const router = Router();
  router.get('/', async (request, response) => {
    response.json(await listMachines(db, request.query['retired'] === 'true'));
  });
  router.get('/:id', async (request, response) => {
    response.json(await machineById(db, request.params.id));
  });
  // A file before it is taken: in the present version, or where it is at fault.
  router.post('/check', async (request, response) => {
    const { machine } = await valid(NewMachine, request.body);
    response.json(migrateMachine(machine));
  });
  router.post('/', async (request, response) => {
    const { machine } = await valid(NewMachine, request.body);
    response.status(201).json(await addMachine(db, migrateMachine(machine) as Machine));
  });
  router.put('/:id', async (request, response) => {
    const { machine, was } = await valid(ChangedMachine, request.body);
    response.json(await changeMachine(db, request.params.id, migrateMachine(machine) as Machine, was));
  });
  router.put('/:id/retired', async (request, response) => {
    const { retired } = await valid(MachineRetired, request.body);
    response.json(await retireMachine(db, request.params.id, retired));
  });
  return router;
}
