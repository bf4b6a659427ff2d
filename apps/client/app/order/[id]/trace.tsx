import { useLocalSearchParams } from 'expo-router';
import { OrderShell } from '../../../src/orders/OrderShell';
import { TraceScreen } from '../../../src/trace/TraceScreen';

export { ErrorBoundary } from '../../../src/ui/ScreenError';

export default function TraceRoute() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return (
    <OrderShell key={id} id={id} phase="trace">
      {(props) => <TraceScreen {...props} />}
    </OrderShell>
  );
}
