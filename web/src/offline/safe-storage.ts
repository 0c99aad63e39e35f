/** Small things that this browser remembers, such as the theme. A browser that keeps nothing is no reason for a blank page. */
export const safeStorage = {
  get: (key: string): string | null => {
    try {
      return localStorage.getItem(key);
    } catch {
      // Denied by the browser's settings: nothing is remembered.
      return null;
    }
  },
  set: (key: string, value: string): void => {
    try {
      localStorage.setItem(key, value);
    } catch {
      // Full or denied: it is forgotten at the next reload, and nothing depends on it.
    }
  },
  remove: (key: string): void => {
    try {
      localStorage.removeItem(key);
    } catch {
      // As above.
    }
  },
};
