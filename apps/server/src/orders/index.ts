export { ordersRouter } from './routes';
export { appendEvent, listOrders, orderDocument } from './service';
export { Derived } from './derived';
