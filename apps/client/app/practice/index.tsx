import { lazy, Suspense } from 'react';
import { Notice } from '../../src/ui/Card';
import { Page } from '../../src/ui/Page';

export { ErrorBoundary } from '../../src/ui/ScreenError';

const PracticeScreen = lazy(async () => ({ default: (await import('../../src/practice')).PracticeScreen }));

export default function PracticeRoute() {
  return (
    <Suspense
      fallback={
        <Page title="Practice bench" back="/tools">
          <Notice title="Fetching the practice bench …" />
        </Page>
      }
    >
      <PracticeScreen />
    </Suspense>
  );
}
