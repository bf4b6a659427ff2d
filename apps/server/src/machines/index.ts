export { machinesRouter } from './routes';
export { saveMachine } from './service';
