export { machinesRouter } from './routes';
export { present, saveMachine } from './service';
