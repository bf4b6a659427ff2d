import { LearnedMessage, ShopCatalogueMessage, ShopChangeMessage } from '@zealous/contracts';
import { recordFaults } from '@zealous/contracts/catalogue';
import { CHANGE_KINDS, type ChangeKind } from '@zealous/core';
import { Router, type Request } from 'express';
import type { DataSource } from 'typeorm';
import { notFound, Problem } from '../http/problem';
import { valid } from '../http/validate';
import { shopHistory } from './history';
import {
  dropChange,
  forgetImports,
  importLearned,
  learnedOf,
  replaceChanges,
  setChange,
  shopCatalogue,
  shopDocument,
} from './service';

const kindOf = (request: Request): ChangeKind => {
  const kind = CHANGE_KINDS.find((known) => known === request.params['kind']);
  if (!kind) throw notFound('part of the catalogue; modes, checks and remedies are there');
  return kind;
};

/** @throws Problem 422 when the fields of a change are not those of its kind of record */
function fitsRecord(kind: ChangeKind, id: string, { op, fields }: ShopChangeMessage): void {
  if (op === 'retire') return;
  const fault = recordFaults(kind, op === 'add' ? { ...fields, id } : { ...fields }, op === 'change')[0];
  if (fault) throw new Problem(422, 'Not in the expected form', fault.reason, `/fields${fault.path}`);
}

export function shopRouter(db: DataSource): Router {
  const router = Router();
  router.get('/', async (request, response) => {
    const { tag, json } = await shopDocument(db);
    response.set({ ETag: tag, 'Cache-Control': 'no-cache' });
    if (request.headers['if-none-match'] === tag) response.status(304).end();
    else response.type('json').send(json);
  });
  router.get('/history', async (_request, response) => {
    response.json(await shopHistory(db));
  });
  router.get('/catalogue.json', async (_request, response) => {
    response.json(await shopCatalogue(db));
  });
  router.put('/catalogue', async (request, response) => {
    const { catalogue } = await valid(ShopCatalogueMessage, request.body);
    response.json(await replaceChanges(db, catalogue));
  });
  router.put('/changes/:kind/:id', async (request, response) => {
    const kind = kindOf(request);
    const change = await valid(ShopChangeMessage, request.body);
    const id = String(request.params.id);
    fitsRecord(kind, id, change);
    response.json(await setChange(db, { ...change, kind, id }));
  });
  router.delete('/changes/:kind/:id', async (request, response) => {
    response.json(await dropChange(db, kindOf(request), String(request.params.id)));
  });
  router.get('/learned.json', async (_request, response) => {
    response.json(await learnedOf(db));
  });
  router.post('/learned', async (request, response) => {
    const { learned } = await valid(LearnedMessage, request.body);
    response.status(201).json(await importLearned(db, learned));
  });
  router.delete('/learned/imported', async (_request, response) => {
    response.json(await forgetImports(db));
  });
  return router;
}
