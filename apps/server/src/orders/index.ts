export { ordersRouter } from './routes';
export { appendEvent, orderDocument } from './service';
export { Derived } from './derived';
