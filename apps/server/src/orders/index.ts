export { ordersRouter } from './routes';
export { appendEvent } from './append';
export { listOrders, orderDocument } from './service';
export { Derived } from './derived';
