import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { Intake } from '@zealous/core';
import { load } from './storage';

/** A take-in that is being filled in; kept so that a reload or a call does not cost it. */
export type TakeInDraft = Intake & { readonly machineId?: string };

export const emptyDraft: TakeInDraft = { symptoms: [], before: [] };

const slice = createSlice({
  name: 'draft',
  initialState: load<TakeInDraft>('draft', emptyDraft),
  reducers: {
    draftChanged: (state, { payload }: PayloadAction<Partial<TakeInDraft>>) => ({ ...state, ...payload }),
    draftEmptied: () => emptyDraft,
  },
});

export const { draftChanged, draftEmptied } = slice.actions;
export const draftReducer = slice.reducer;
