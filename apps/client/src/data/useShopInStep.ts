import { useEffect } from 'react';
import { tracer } from '../workers/trace';
import { useShopQuery } from './api';
import { useAppSelector } from './store';

/** How often the other phones' changes to the catalogue are asked for. */
const POLL_MS = 60_000;

/** Keeps this device and its tracer in step with what the shop has made of the catalogue. */
export function useShopInStep(): void {
  useShopQuery(undefined, { pollingInterval: POLL_MS, skipPollingIfUnfocused: true });
  const shop = useAppSelector((root) => root.shop);
  const useLearned = useAppSelector((root) => root.settings.useLearned);
  useEffect(() => {
    void tracer().warmUp();
  }, []);
  useEffect(() => {
    void tracer().setShop(shop, useLearned);
  }, [shop, useLearned]);
}
