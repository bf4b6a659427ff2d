import { createSlice } from '@reduxjs/toolkit';
import type { ShopDocument } from '@zealous/contracts/messages';
import { noShopChanges, nothingLearned } from '@zealous/core/first';
import { api } from './api';
import { load } from './storage';

/** What the shop has made of the catalogue, as last heard from the server; kept for the time without it. */
export type ShopState = ShopDocument;

const slice = createSlice({
  name: 'shop',
  initialState: load<ShopState>('shop', { catalogue: noShopChanges, learned: nothingLearned, imports: 0 }),
  reducers: {},
  extraReducers: (build) => {
    build.addMatcher(api.endpoints.shop.matchFulfilled, (state, { payload }) =>
      JSON.stringify(state) === JSON.stringify(payload) ? state : payload,
    );
  },
});

export const shopReducer = slice.reducer;
