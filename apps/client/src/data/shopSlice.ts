import { createSelector, createSlice } from '@reduxjs/toolkit';
import type { ShopDocument } from '@zealous/contracts/messages';
import {
  deliveredCatalogue,
  learnedCatalogue,
  noShopChanges,
  nothingLearned,
  soundCatalogue,
  type Catalogue,
  type Machine,
  type SoundCatalogue,
} from '@zealous/core';
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

/** The delivered catalogue with the shop's changes: one object for as long as they stay. */
const soundFrom = createSelector([(shop: ShopState) => shop.catalogue], (changes) =>
  soundCatalogue(deliveredCatalogue, changes),
);

export const catalogueFrom = (shop: ShopState): Catalogue => soundFrom(shop).catalogue;

/** Changes of the shop that do not hold together with what is delivered now, and are left out. */
export const leftOutOf = (shop: ShopState): SoundCatalogue['leftOut'] => soundFrom(shop).leftOut;

/** The catalogue as the shop's own orders have moved it for a machine; by itself where learning is left out. */
export const beliefFor = (shop: ShopState, useLearned: boolean, machine: Pick<Machine, 'id' | 'family'>): Catalogue =>
  useLearned ? learnedCatalogue(catalogueFrom(shop), shop.learned, machine) : catalogueFrom(shop);
