import type { Connector } from './connector.ts';

const mainsRule =
  'Mains leads are replaced, never mended; whether one may be used is decided by local ' +
  'rules and, where they say so, by a licensed person.';
const mains = (
  id: string,
  name: string,
  shape: NonNullable<Connector['looks']['mains']>,
  carries: string,
  goesInto: string,
  never: Connector['never'] = [],
): Connector => ({
  id,
  group: 'mains',
  name,
  looks: { look: 'mains', pins: shape === 'eight' ? 2 : 3, mains: shape },
  drawing: { as: 'mains', shape },
  printed: 'its amps, near the inlet',
  carries,
  contacts: shape === 'eight' ? [] : [{ pin: 'middle', carries: 'protective earth' }],
  goesInto,
  never,
  out: 'Rocker off, out of the wall first, then out of the supply; hold the plug, not the lead.',
  in: `Fully home into the supply before the wall. ${mainsRule}`,
  recordAs: null,
});

export const mainsConnectors: readonly Connector[] = [
  mains(
    'c13',
    'Mains lead C13, 10 A',
    'three-flat',
    '10 A at most: about 2300 W at 230 V, less by the lead’s own print.',
    'The C14 inlet of most supplies.',
    [
      {
        id: 'c19',
        into: 'a supply with the larger C20 inlet',
        happens: 'it does not fit, and an adapter would let 16 A through a 10 A lead',
      },
    ],
  ),
  mains(
    'c15',
    'Mains lead C15, notched, 10 A',
    'notched',
    '10 A at most, for what gets hot.',
    'C16 inlets with a ridge, and C14 as well.',
  ),
  mains(
    'c19',
    'Mains lead C19, large, 16 A',
    'large',
    '16 A at most, for supplies of 1500 W and more.',
    'The C20 inlet of large supplies.',
  ),
  mains('c5', 'Mains lead C5, clover, 2.5 A', 'clover', '2.5 A at most.', 'Outside adapters of small machines.'),
  mains(
    'c7',
    'Mains lead C7, figure of eight, 2.5 A',
    'eight',
    '2.5 A at most, without protective earth.',
    'Small devices; no supply of a machine.',
  ),
  {
    id: 'barrel',
    group: 'mains',
    name: 'Round plug of an outside adapter',
    looks: { look: 'round', pins: 1 },
    drawing: { as: 'barrel' },
    printed: '12 V, 19 V, and a sign for which pole is inside',
    carries: 'The one voltage of its adapter; the plug does not tell which.',
    contacts: [
      { pin: 'inside', carries: 'mostly +' },
      { pin: 'outside', carries: 'mostly -' },
    ],
    goesInto: 'The machine whose plate says the same volts, the same pole inside and no more amps.',
    never: [
      {
        id: null,
        into: 'a machine of another voltage',
        happens: 'the plug fits many machines: 19 V on one for 12 V burns its board',
      },
    ],
    out: 'Out of the wall first.',
    in: 'Read volts, amps and pole on both plates before it goes in.',
    recordAs: null,
  },
];
