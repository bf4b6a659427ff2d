import { configureStore } from '@reduxjs/toolkit';
import { useDispatch, useSelector, useStore } from 'react-redux';
import { api } from './api';
import { builderReducer } from './builderSlice';
import { draftReducer } from './draftSlice';
import { ordersReducer } from './ordersSlice';
import { settingsReducer } from './settingsSlice';
import { shopReducer } from './shopSlice';
import { save } from './storage';

/** Orders kept on the device for the next reload without a network. */
const KEPT_ORDERS = 6;

export function makeStore() {
  const store = configureStore({
    reducer: {
      orders: ordersReducer,
      settings: settingsReducer,
      draft: draftReducer,
      shop: shopReducer,
      builder: builderReducer,
      [api.reducerPath]: api.reducer,
    },
    middleware: (defaults) => defaults({ immutableCheck: false, serializableCheck: false }).concat(api.middleware),
  });
  let last = store.getState();
  // Written at once, not after a delay: a phone may be put to sleep between the tap and the next moment.
  store.subscribe(() => {
    const now = store.getState();
    // Without the catalogues of closed orders: six of them would fill what the device gives.
    if (now.orders.byId !== last.orders.byId)
      save(
        'orders',
        Object.fromEntries(
          Object.entries(now.orders.byId)
            .slice(-KEPT_ORDERS)
            .map(([id, { machine, stored }]) => [id, { machine, stored }]),
        ),
      );
    if (now.shop !== last.shop) save('shop', now.shop);
    if (now.settings !== last.settings) save('settings', now.settings);
    if (now.builder !== last.builder) save('builder', now.builder);
    if (now.draft !== last.draft) save('draft', now.draft);
    last = now;
  });
  return store;
}

export type AppStore = ReturnType<typeof makeStore>;
export type RootState = ReturnType<AppStore['getState']>;
export const useAppDispatch = useDispatch.withTypes<AppStore['dispatch']>();
export const useAppSelector = useSelector.withTypes<RootState>();
export const useAppStore = useStore.withTypes<AppStore>();
