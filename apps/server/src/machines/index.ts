export { machinesRouter } from './routes';
export { machineById, present, saveMachine } from './service';
