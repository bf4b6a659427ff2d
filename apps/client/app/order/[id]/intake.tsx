import { useLocalSearchParams } from 'expo-router';
import { CorrectScreen } from '../../../src/intake/CorrectScreen';
import { OrderShell } from '../../../src/orders/OrderShell';

export { ErrorBoundary } from '../../../src/ui/ScreenError';

export default function IntakeRoute() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return (
    <OrderShell key={id} id={id}>
      {(props) => <CorrectScreen {...props} />}
    </OrderShell>
  );
}
