/** A store of this browser that may be denied or full: then nothing is remembered, and nothing depends on it. */
function safely(store: () => Storage) {
  return {
    get: (key: string): string | null => {
      try {
        return store().getItem(key);
      } catch {
        // Denied by the browser's settings: nothing is remembered.
        return null;
      }
    },
    set: (key: string, value: string): void => {
      try {
        store().setItem(key, value);
      } catch {
        // Full or denied: it is forgotten at the next reload.
      }
    },
    remove: (key: string): void => {
      try {
        store().removeItem(key);
      } catch {
        // As above.
      }
    },
  };
}

/** Small things that this browser remembers, such as the theme. */
export const safeStorage = safely(() => localStorage);
/** The same for one tab, until it is closed. */
export const safeSession = safely(() => sessionStorage);
