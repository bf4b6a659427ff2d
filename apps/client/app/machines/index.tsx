export { MachinesScreen as default } from '../../src/machines/MachinesScreen';
export { ErrorBoundary } from '../../src/ui/ScreenError';
