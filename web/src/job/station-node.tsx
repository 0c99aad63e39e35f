import type { ReactNode } from 'react';
import type { StationState } from '@fairwatt/core';
import styles from './station-node.module.css';

/** A station as a node: shape and mark say its state. */
export function StationNode({ state, children }: { readonly state: StationState; readonly children: ReactNode }) {
  return (
    <span className={`${styles.node} ${styles[state] ?? ''}`} aria-hidden="true">
      <span>{children}</span>
    </span>
  );
}
