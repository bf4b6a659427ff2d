import type { Catalogue } from '@zealous/core';
import { createContext, useContext } from 'react';
import { catalogueFrom } from './shopCatalogue';
import { useAppSelector } from './store';

/** Within a closed order, the catalogue that it was closed with. */
export const OrderCatalogue = createContext<Catalogue | undefined>(undefined);

/** The delivered catalogue with the shop's own changes; within an order, what the order is read by. */
export const useCatalogue = (): Catalogue => {
  const present = useAppSelector((root) => catalogueFrom(root.shop));
  return useContext(OrderCatalogue) ?? present;
};
