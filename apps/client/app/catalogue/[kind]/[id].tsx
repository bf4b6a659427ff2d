import { useLocalSearchParams } from 'expo-router';
import { lazy } from 'react';
import { Late } from '../../../src/ui/Late';

export { ErrorBoundary } from '../../../src/ui/ScreenError';

const CatalogueRecordScreen = lazy(async () => ({
  default: (await import('../../../src/late')).CatalogueRecordScreen,
}));

export default function CatalogueRecordRoute() {
  const { kind, id } = useLocalSearchParams<{ kind: string; id: string }>();
  return (
    <Late title="Catalogue" back="/catalogue" what="the form">
      <CatalogueRecordScreen key={`${kind}/${id}`} kind={kind} id={id} />
    </Late>
  );
}
