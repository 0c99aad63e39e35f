import { useCallback } from 'react';
import { api } from '../app/api.ts';
import { useAppDispatch } from '../app/store.ts';
import { scanned, type Scanned } from './scanned.ts';

const once = { subscribe: false } as const;

/**
 * Where what was scanned leads in this shop: looked up when it is asked, so that no screen waits for lists that it has
 * no use for. What cannot be fetched now is left out.
 */
export function useScanned(): (text: string) => Promise<Scanned | null> {
  const dispatch = useAppDispatch();
  return useCallback(
    async (text) => {
      const [shop, units, bags] = await Promise.all([
        dispatch(api.endpoints.shop.initiate(undefined, once)),
        dispatch(api.endpoints.units.initiate(undefined, once)),
        dispatch(api.endpoints.cableBags.initiate(undefined, once)),
      ]);
      return scanned(text, {
        codePrefix: shop.data?.settings.codePrefix ?? '',
        units: units.data ?? [],
        bags: bags.data?.cables ?? [],
      });
    },
    [dispatch],
  );
}
