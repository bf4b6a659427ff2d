import { useLocalSearchParams } from 'expo-router';
import { MachineScreen } from '../../src/machines/MachineScreen';

export { ErrorBoundary } from '../../src/ui/ScreenError';

export default function MachineRoute() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <MachineScreen id={id} />;
}
