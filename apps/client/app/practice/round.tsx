import { lazy } from 'react';
import { Late } from '../../src/ui/Late';

export { ErrorBoundary } from '../../src/ui/ScreenError';

const RoundScreen = lazy(async () => ({ default: (await import('../../src/practice')).RoundScreen }));

export default function PracticeRoute() {
  return (
    <Late title="Practice bench" back="/tools" what="the practice bench">
      <RoundScreen />
    </Late>
  );
}
