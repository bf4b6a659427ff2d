export { shopRouter } from './routes';
export { catalogueKept, hashOf, keepCatalogue, keepForClosed } from './kept';
export { catalogueOf, keepLesson } from './service';
