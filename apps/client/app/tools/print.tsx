export { PrintScreen as default } from '../../src/tools/PrintScreen';
export { ErrorBoundary } from '../../src/ui/ScreenError';
