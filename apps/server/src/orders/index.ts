export { ordersRouter } from './routes';
export { appendEvent } from './service';
