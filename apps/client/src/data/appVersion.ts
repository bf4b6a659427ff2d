import { versionSeen } from './ordersSlice';
import type { AppStore } from './store';

/** Registers the worker that keeps the application on this device; a new version is told, never forced. */
export function runAppVersion(store: AppStore): void {
  if (process.env.NODE_ENV !== 'production' || !('serviceWorker' in navigator)) return;
  void navigator.serviceWorker
    .register('/sw.js')
    .then((registration) => {
      const look = (): void => {
        if (registration.waiting && navigator.serviceWorker.controller) store.dispatch(versionSeen('waiting'));
      };
      look();
      registration.addEventListener('updatefound', () =>
        registration.installing?.addEventListener('statechange', look),
      );
    })
    .catch(() => undefined);
}

/** Loads the newest version. What is not sent yet lies on the device and goes on from there. */
export async function loadNewVersion(): Promise<void> {
  const registration = await navigator.serviceWorker?.getRegistration();
  await registration?.update().catch(() => undefined);
  if (registration?.waiting) {
    navigator.serviceWorker.addEventListener('controllerchange', () => location.reload(), { once: true });
    registration.waiting.postMessage({ type: 'SKIP_WAITING' });
  } else location.reload();
}
