import { useLocalSearchParams } from 'expo-router';
import { CatalogueRecordScreen } from './CatalogueRecordScreen';

/** The record whose kind and id stand in the address. */
export function CatalogueRecordPage() {
  const { kind, id } = useLocalSearchParams<{ kind: string; id: string }>();
  return <CatalogueRecordScreen key={`${kind}/${id}`} kind={kind} id={id} />;
}
