import { createSelector } from '@reduxjs/toolkit';
import {
  deliveredCatalogue,
  learnedCatalogue,
  soundCatalogue,
  type Catalogue,
  type Machine,
  type SoundCatalogue,
} from '@zealous/core';
import type { ShopState } from './shopSlice';

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
