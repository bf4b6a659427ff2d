import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { Machine } from '@zealous/core';
import { load } from './storage';

/** A description under way; kept on the device until it is stored or given up. */
export interface BuilderState {
  readonly machine?: Machine;
  /** The stored description that it was made from; absent for a new machine. */
  readonly was?: Machine;
}

const slice = createSlice({
  name: 'builder',
  initialState: load<BuilderState>('builder', {}),
  reducers: {
    buildingBegun: (_state, { payload }: PayloadAction<BuilderState>) => payload,
    built: (state, { payload }: PayloadAction<Machine>) => ({ ...state, machine: payload }),
    buildingEnded: () => ({}),
  },
});

export const { buildingBegun, built, buildingEnded } = slice.actions;
export const builderReducer = slice.reducer;
