export { TubeScreen as default } from '../../src/tools/TubeScreen';
export { ErrorBoundary } from '../../src/ui/ScreenError';
