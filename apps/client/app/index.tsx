export { BenchScreen as default } from '../src/bench/BenchScreen';
export { ErrorBoundary } from '../src/ui/ScreenError';
