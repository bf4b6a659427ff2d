import { useEffect, useState } from 'react';

/** The time, refreshed every so many milliseconds; computed from the clock, so a phone that slept is right at once. */
export function useClock(everyMs = 1000): number {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), everyMs);
    return () => clearInterval(timer);
  }, [everyMs]);
  return now;
}
