export { ForcesScreen as default } from '../../src/tools/ForcesScreen';
export { ErrorBoundary } from '../../src/ui/ScreenError';
