import { useCallback, useSyncExternalStore } from 'react';
import { safeSession } from './safe-storage.ts';

const texts = new Map<string, string>();
const listeners = new Set<() => void>();
const keyOf = (field: string) => `fairwatt.typed.${field}`;

/** Texts that were typed and are not taken in yet, by field. This tab keeps them, over a reload too. */
export const typedTexts = {
  get: (field: string): string => texts.get(field) ?? safeSession.get(keyOf(field)) ?? '',
  set: (field: string, text: string): void => {
    texts.set(field, text);
    if (text === '') safeSession.remove(keyOf(field));
    else safeSession.set(keyOf(field), text);
    for (const listener of listeners) listener();
  },
  listen: (listener: () => void): (() => void) => {
    listeners.add(listener);
    return () => listeners.delete(listener);
  },
};

/** The text of a field, as it was left; the same wherever the field is shown. */
export function useTypedText(field: string): readonly [string, (text: string) => void] {
  const text = useSyncExternalStore(typedTexts.listen, () => typedTexts.get(field));
  const set = useCallback((next: string) => typedTexts.set(field, next), [field]);
  return [text, set];
}
