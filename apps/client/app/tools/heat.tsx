export { HeatScreen as default } from '../../src/tools/HeatScreen';
export { ErrorBoundary } from '../../src/ui/ScreenError';
