import { LearnedMessage, ShopCatalogueMessage, ShopChangeMessage } from '@zealous/contracts';
import { CHANGE_KINDS, type ChangeKind } from '@zealous/core';
import { Router, type Request } from 'express';
import type { DataSource } from 'typeorm';
import { notFound } from '../http/problem';
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

export function shopRouter(db: DataSource): Router {
  const router = Router();
  router.get('/', async (_request, response) => {
    response.json(await shopDocument(db));
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
    response.json(await setChange(db, { ...change, kind, id: String(request.params.id) }));
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
