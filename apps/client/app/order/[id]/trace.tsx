import { useLocalSearchParams } from 'expo-router';
import { OrderShell } from '../../../src/orders/OrderShell';
import { TraceScreen } from '../../../src/trace/TraceScreen';

export default function TraceRoute() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return (
    <OrderShell key={id} id={id} phase="trace">
      {(props) => <TraceScreen {...props} />}
    </OrderShell>
  );
}
