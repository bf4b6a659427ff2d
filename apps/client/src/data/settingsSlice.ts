import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { ThemeChoice } from '../ui/theme';
import { load } from './storage';

export interface SettingsState {
  /** Role under which entries are recorded. */
  readonly by: string;
  readonly theme: ThemeChoice;
}

const slice = createSlice({
  name: 'settings',
  initialState: load<SettingsState>('settings', { by: 'bench 1', theme: 'device' }),
  reducers: {
    settingsChanged: (state, { payload }: PayloadAction<Partial<SettingsState>>) => ({ ...state, ...payload }),
  },
});

export const { settingsChanged } = slice.actions;
export const settingsReducer = slice.reducer;
