export { FitsScreen as default } from '../../src/tools/FitsScreen';
export { ErrorBoundary } from '../../src/ui/ScreenError';
