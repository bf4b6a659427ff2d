import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { Machine } from '@zealous/core';
import type { Loose } from '../ui/form/fields';
import { load } from './storage';

/** A description under way; kept on the device until it is stored or given up. */
export interface BuilderState {
  readonly machine?: Machine;
  /** The stored description that it was made from; absent for a new machine. */
  readonly was?: Machine;
  /** By piece, what was typed and does not fit yet, so that closing its form or a reload loses nothing. */
  readonly typed?: Readonly<Record<string, Loose>>;
}

/** The machine's own fields and its plugs, among the pieces; no station or part has such a name. */
export const ABOUT = ' about';
export const PLUGS = ' plugs';

interface PieceTyped {
  readonly machine: Machine;
  readonly id: string;
  readonly typed: Loose | undefined;
}

const slice = createSlice({
  name: 'builder',
  initialState: load<BuilderState>('builder', {}),
  reducers: {
    buildingBegun: (_state, { payload }: PayloadAction<BuilderState>) => payload,
    built: (state, { payload }: PayloadAction<Machine>) => ({ ...state, machine: payload }),
    pieceTyped: (state, { payload: { machine, id, typed } }: PayloadAction<PieceTyped>) => {
      const { [id]: _before, ...others } = state.typed ?? {};
      return { ...state, machine, typed: typed ? { ...others, [id]: typed } : others };
    },
    buildingEnded: () => ({}),
  },
});

export const { buildingBegun, built, pieceTyped, buildingEnded } = slice.actions;
export const builderReducer = slice.reducer;
