export { shopRouter } from './routes';
export { catalogueOf, keepLesson } from './service';
