export { ordersRouter } from './routes';
export { appendEvent } from './service';
export { Derived } from './derived';
