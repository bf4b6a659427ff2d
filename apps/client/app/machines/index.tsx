export { MachinesScreen as default } from '../../src/machines/MachinesScreen';
