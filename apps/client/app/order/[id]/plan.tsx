import { useLocalSearchParams } from 'expo-router';
import { OrderShell } from '../../../src/orders/OrderShell';
import { PlanScreen } from '../../../src/plan/PlanScreen';

export { ErrorBoundary } from '../../../src/ui/ScreenError';

export default function PlanRoute() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return (
    <OrderShell key={id} id={id} phase="plan">
      {(props) => <PlanScreen {...props} />}
    </OrderShell>
  );
}
