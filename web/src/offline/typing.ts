import { useSyncExternalStore } from 'react';

const fields = new Set<string>();
const listeners = new Set<() => void>();
const tell = () => {
  for (const listener of listeners) listener();
};

/** A field holds something typed that is not kept yet, until it says that it is. */
export const typing = {
  begin: (field: string): void => {
    if (fields.has(field)) return;
    fields.add(field);
    tell();
  },
  end: (field: string): void => {
    if (fields.delete(field)) tell();
  },
};

/** Whether anything is being typed that is not kept yet. */
export const useTyping = (): boolean =>
  useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => fields.size > 0,
  );
