import { Button } from '../ui/Button';
import { useOpenLine } from './LineContext';

/** Where something can be had from the machine itself: shown only when it is on the line. */
export function ByMachine({ label, hotC }: { readonly label: string; readonly hotC?: number }) {
  const open = useOpenLine();
  return open ? <Button label={label} icon="machine" onPress={() => open(hotC)} /> : null;
}
