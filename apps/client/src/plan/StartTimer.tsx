import useLatestCallback from 'use-latest-callback';
import { Button } from '../ui/Button';
import { waitText } from '../ui/format';
import { useKey } from '../ui/useKey';

/** Starts the timer of a step that waits; on a keyboard, T does. */
export function StartTimer({
  minutes,
  onTimer,
}: {
  readonly minutes: number;
  readonly onTimer: (minutes: number) => void;
}) {
  const start = useLatestCallback((): void => onTimer(Math.round(minutes)));
  useKey(
    useLatestCallback((key: string): boolean => {
      if (key === 't') start();
      return key === 't';
    }),
  );
  return <Button label={`Start the timer, ${waitText(minutes)}`} icon="timer" onPress={start} />;
}
