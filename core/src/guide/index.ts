import type { Connector } from './connector.ts';
import { driveConnectors } from './drives.ts';
import { headerConnectors } from './headers.ts';
import { mainsConnectors } from './mains.ts';
import { powerConnectors } from './power.ts';

export type { Connector, Contact, Drawing, Looks } from './connector.ts';
export { type LookAlikes, lookAlikes } from './look-alikes.ts';
export { type Feature, matching, nextQuestion, type Question, type Seen } from './questions.ts';

/** Every connector that the guide knows, those of the supply first. */
export const connectors: readonly Connector[] = [
  ...powerConnectors,
  ...driveConnectors,
  ...headerConnectors,
  ...mainsConnectors,
];

/** The connector of this id; undefined for none. */
export const connectorOf = (id: string): Connector | undefined => connectors.find((one) => one.id === id);
