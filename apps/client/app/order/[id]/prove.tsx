import { useLocalSearchParams } from 'expo-router';
import { OrderShell } from '../../../src/orders/OrderShell';
import { ProveScreen } from '../../../src/prove/ProveScreen';

export { ErrorBoundary } from '../../../src/ui/ScreenError';

export default function ProveRoute() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return (
    <OrderShell key={id} id={id} phase="prove">
      {(props) => <ProveScreen {...props} />}
    </OrderShell>
  );
}
