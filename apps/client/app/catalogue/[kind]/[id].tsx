import { useLocalSearchParams } from 'expo-router';
import { CatalogueRecordScreen } from '../../../src/catalogue/CatalogueRecordScreen';

export default function CatalogueRecordRoute() {
  const { kind, id } = useLocalSearchParams<{ kind: string; id: string }>();
  return <CatalogueRecordScreen key={`${kind}/${id}`} kind={kind} id={id} />;
}
