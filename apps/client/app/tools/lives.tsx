export { LivesScreen as default } from '../../src/tools/LivesScreen';
export { ErrorBoundary } from '../../src/ui/ScreenError';
