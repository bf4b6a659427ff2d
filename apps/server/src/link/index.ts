export { linkRouter } from './routes';
export { Links } from './service';
