export { MeterScreen as default } from '../../src/tools/MeterScreen';
export { ErrorBoundary } from '../../src/ui/ScreenError';
