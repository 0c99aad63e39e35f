import type { InletKind } from '@fairwatt/core';
import { ConnectorFace } from '../../drawings/connector-face.tsx';
import { FrontPanel } from '../../drawings/front-panel.tsx';
import { looks } from '../../looks/looks.ts';
import styles from './check-drawing.module.css';

const plugName: Partial<Record<string, string>> = {
  'main-24': 'Main plug',
  'main-20': 'Main plug of 20 pins',
  'cpu-8': 'Processor plug',
  'card-8': 'Card plug',
  'card-16': '16-pin plug',
  sata: 'Drive plug',
};

/** Narrow enough to stand beside the steps. */
export const isSmallDrawing = (drawing: string) => !drawing.startsWith('main-');

/** Where to touch or push: the plug's face with its pins, or the front panel's pins. */
export function CheckDrawing({ drawing }: { readonly drawing: string }) {
  if (drawing === 'power-switch')
    return (
      <figure className={styles.checkDrawing}>
        <FrontPanel />
        <figcaption className={looks.quiet}>Usual order. The board's manual decides.</figcaption>
      </figure>
    );
  const [kind = '', pins = ''] = drawing.split(':');
  const lit = pins === '' ? [] : pins.split(',').map(Number);
  return (
    <figure className={styles.checkDrawing}>
      <ConnectorFace kind={kind as InletKind} lit={lit} width={isSmallDrawing(drawing) ? 170 : 400} />
      <figcaption className={looks.quiet}>
        {plugName[kind] ?? 'Plug'}, wires towards you, latch up.{lit.length > 0 && ' Go by the pin, not by the colour.'}
      </figcaption>
    </figure>
  );
}
