import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { TextChoice } from '../ui/textSize';
import type { ThemeChoice } from '../ui/theme';
import { load } from './storage';

export interface SettingsState {
  /** Role under which entries are recorded. */
  readonly by: string;
  readonly theme: ThemeChoice;
  readonly text: TextChoice;
  /** Whether the shop's own closed orders move the weights. */
  readonly useLearned: boolean;
  /** A fixed order of the trade that the technician keeps to; absent: the tracer's own choice. */
  readonly habit?: string | undefined;
}

const DEFAULTS: SettingsState = { by: 'bench 1', theme: 'device', text: 'device', useLearned: true };

const slice = createSlice({
  name: 'settings',
  initialState: { ...DEFAULTS, ...load<Partial<SettingsState>>('settings', {}) } as SettingsState,
  reducers: {
    settingsChanged: (state, { payload }: PayloadAction<Partial<SettingsState>>) => ({ ...state, ...payload }),
  },
});

export const { settingsChanged } = slice.actions;
export const settingsReducer = slice.reducer;
