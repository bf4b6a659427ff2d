import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { load } from './storage';

/** A take-in that is being filled in; kept so that a reload or a call does not cost it. */
export interface TakeInDraft {
  readonly machineId?: string;
  readonly lane?: string;
  readonly material?: string;
  readonly colour?: string;
  readonly weeksLoaded?: number;
  readonly hotterBefore?: boolean;
  readonly symptoms: readonly string[];
  readonly onset?: string;
  readonly before: readonly string[];
  readonly failedAfterMinutes?: number;
  readonly failedAtMm?: number;
  readonly warranty?: 'yes' | 'no';
  readonly note?: string;
}

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
