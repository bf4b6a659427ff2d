export { TakeInScreen as default } from '../src/intake/TakeInScreen';
export { ErrorBoundary } from '../src/ui/ScreenError';
