import { lateScreen } from '../../../src/lateScreen';

export { ErrorBoundary } from '../../../src/ui/ScreenError';
export default lateScreen('TracePage', 'Order', '/');
