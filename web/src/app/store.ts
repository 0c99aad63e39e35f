import { configureStore } from '@reduxjs/toolkit';
import { setupListeners } from '@reduxjs/toolkit/query';
import { useDispatch, useSelector } from 'react-redux';
import { connectionReducer } from '../offline/connection.ts';
import { outboxReducer } from '../offline/outbox.ts';
import { api } from './api.ts';
import { keepSession, sessionReducer } from './session.ts';
import { sweepReducer } from './sweep.ts';

export const store = configureStore({
  reducer: {
    [api.reducerPath]: api.reducer,
    outbox: outboxReducer,
    connection: connectionReducer,
    session: sessionReducer,
    sweep: sweepReducer,
  },
  middleware: (defaults) => defaults({ serializableCheck: false, immutableCheck: false }).concat(api.middleware),
});
export type AppStore = typeof store;
export type AppState = ReturnType<AppStore['getState']>;
export const useAppDispatch = useDispatch.withTypes<AppStore['dispatch']>();
export const useAppSelector = useSelector.withTypes<AppState>();

setupListeners(store.dispatch);
let sessionSeen = store.getState().session;
store.subscribe(() => {
  const { session } = store.getState();
  if (session !== sessionSeen) {
    sessionSeen = session;
    keepSession(session);
  }
});
