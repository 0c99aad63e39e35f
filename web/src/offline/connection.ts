import { createSlice, type PayloadAction } from '@reduxjs/toolkit';

/** Whether the server and its database answer; `full`: they do, and have no room left to write. */
export type Connection = 'here' | 'away' | 'full';
const slice = createSlice({
  name: 'connection',
  initialState: (): Connection => 'here',
  reducers: { set: (_state, { payload }: PayloadAction<Connection>) => payload },
});
export const connection = slice.actions;
export const connectionReducer = slice.reducer;
