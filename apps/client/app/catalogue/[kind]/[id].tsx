import { useLocalSearchParams } from 'expo-router';
import { lazy, Suspense } from 'react';
import { Notice } from '../../../src/ui/Card';
import { Page } from '../../../src/ui/Page';

export { ErrorBoundary } from '../../../src/ui/ScreenError';

const CatalogueRecordScreen = lazy(async () => ({
  default: (await import('../../../src/late')).CatalogueRecordScreen,
}));

export default function CatalogueRecordRoute() {
  const { kind, id } = useLocalSearchParams<{ kind: string; id: string }>();
  return (
    <Suspense
      fallback={
        <Page title="Catalogue" back="/catalogue">
          <Notice title="Fetching the form …" />
        </Page>
      }
    >
      <CatalogueRecordScreen key={`${kind}/${id}`} kind={kind} id={id} />
    </Suspense>
  );
}
