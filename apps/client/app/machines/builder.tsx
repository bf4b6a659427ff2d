export { BuilderScreen as default } from '../../src/machines/BuilderScreen';
export { ErrorBoundary } from '../../src/ui/ScreenError';
