import type { Job } from '@fairwatt/core';
import type { Connection } from './connection.ts';
import type { DoneParcel } from './outbox.ts';
import type { Parcel } from './parcel.ts';

/** What tabs of one browser tell each other. */
export type TabMessage =
  | { readonly kind: 'put'; readonly parcel: Parcel }
  | { readonly kind: 'gone'; readonly id: string }
  | { readonly kind: 'confirmed'; readonly done: readonly DoneParcel[] }
  | { readonly kind: 'job'; readonly job: Job }
  | { readonly kind: 'changed'; readonly tags: readonly string[]; readonly code: string | null }
  | { readonly kind: 'connection'; readonly state: Connection };

export interface Tabs {
  readonly tell: (message: TabMessage) => void;
  readonly listen: (hear: (message: TabMessage) => void) => void;
  /**
   * Calls back once this tab is the one that sends for all: at once where it is alone, else when the other one closes.
   */
  readonly lead: (begin: () => void) => void;
}

/** The tabs of this browser, by its own channel and lock. */
export function browserTabs(): Tabs {
  const channel = typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel('fairwatt');
  return {
    tell: (message) => channel?.postMessage(message),
    listen: (hear) => {
      channel?.addEventListener('message', (event: MessageEvent<TabMessage>) => hear(event.data));
    },
    lead: (begin) => {
      // Without locks each tab sends its own; the server does each parcel once whoever sends it.
      if (!('locks' in navigator)) begin();
      else
        void navigator.locks.request('fairwatt-sender', () => {
          begin();
          return new Promise<never>(() => {
            /* held until the tab is closed */
          });
        });
    },
  };
}
