import type { Catalogue } from '@zealous/core';
import { createContext, useContext, useEffect } from 'react';
import { tracer } from '../workers/trace';
import { useShopQuery } from './api';
import { catalogueFrom } from './shopSlice';
import { useAppSelector } from './store';

/** How often the other phones' changes to the catalogue are asked for. */
const POLL_MS = 60_000;

/** Within a closed order, the catalogue that it was closed with. */
export const OrderCatalogue = createContext<Catalogue | undefined>(undefined);

/** The delivered catalogue with the shop's own changes; within an order, what the order is read by. */
export const useCatalogue = (): Catalogue => {
  const present = useAppSelector((root) => catalogueFrom(root.shop));
  return useContext(OrderCatalogue) ?? present;
};

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
