import { useLocalSearchParams } from 'expo-router';
import { OrderShell } from '../../../src/orders/OrderShell';
import { RecordScreen } from '../../../src/record/RecordScreen';

export { ErrorBoundary } from '../../../src/ui/ScreenError';

export default function RecordRoute() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return (
    <OrderShell key={id} id={id} phase="record">
      {(props) => <RecordScreen {...props} />}
    </OrderShell>
  );
}
