import { useLocalSearchParams } from 'expo-router';
import { MachineScreen } from './MachineScreen';

/** The machine whose id stands in the address. */
export function MachinePage() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <MachineScreen id={id} />;
}
