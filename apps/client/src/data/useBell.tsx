import { SAFE_TO_TOUCH_C, temperatureAt, type Machine, type OrderState } from '@zealous/core';
import { activateKeepAwakeAsync, deactivateKeepAwake } from 'expo-keep-awake';
import { useEffect } from 'react';
import { useClock } from './useClock';

/** Hertz and seconds of the sound: heard over a fan, and short. */
const TONE_HZ = 880;
const TONE_S = 0.35;
const BEATS = 3;

/** Sounds three times and shakes the phone; where the browser does neither, the words on the screen stand. */
export function ring(): void {
  const { navigator, AudioContext } = globalThis as Partial<typeof globalThis>;
  navigator?.vibrate?.([300, 150, 300, 150, 300]);
  if (!AudioContext) return;
  const sound = new AudioContext();
  for (let i = 0; i < BEATS; i++) {
    const tone = sound.createOscillator();
    const loud = sound.createGain();
    tone.frequency.value = TONE_HZ;
    loud.gain.value = 0.2;
    tone.connect(loud).connect(sound.destination);
    tone.start(sound.currentTime + i * 2 * TONE_S);
    tone.stop(sound.currentTime + i * 2 * TONE_S + TONE_S);
  }
  setTimeout(() => void sound.close(), 1000 * (2 * BEATS + 1) * TONE_S);
}

/** Rings when a timer of the order runs out while the page is open; one that ran out before is only told. */
export function useBell(timers: OrderState['timers']): void {
  const key = timers.map(({ id, endsMs }) => `${id}:${endsMs}`).join();
  useEffect(() => {
    const now = Date.now();
    const waits = timers.filter(({ endsMs }) => endsMs > now).map(({ endsMs }) => setTimeout(ring, endsMs - now));
    return () => waits.forEach(clearTimeout);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- `key` is what the timers are
  }, [key]);
}

const TAG = 'bench';

/** Keeps the screen on while the machine is hot or a timer runs. Where the device refuses, it goes dark as usual. */
export function StayAwake({ machine, state }: { readonly machine: Machine; readonly state: OrderState }) {
  const now = useClock(5000);
  const awake =
    !state.closed &&
    (state.heat.targetC > 0 ||
      temperatureAt(machine, state.heat, now) > SAFE_TO_TOUCH_C ||
      state.timers.some(({ endsMs }) => endsMs > now));
  useEffect(() => {
    if (!awake) return undefined;
    void activateKeepAwakeAsync(TAG).catch(() => undefined);
    return () => void deactivateKeepAwake(TAG).catch(() => undefined);
  }, [awake]);
  return null;
}
