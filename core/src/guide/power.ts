import { inletFace, type InletKind, type PinSignal } from '../standards/index.ts';
import type { Connector, Contact, Never } from './connector.ts';

const signalText: Readonly<Record<PinSignal, string>> = {
  '12': '+12 V, yellow',
  '5': '+5 V, red',
  '3.3': '+3.3 V, orange',
  G: 'ground, black',
  SB: '+5 V standby, purple',
  PG: 'power good, grey',
  ST: 'start line, green: low starts the supply',
  '-12': '-12 V, blue',
  S: 'sense, ground or nothing: it tells that the plug is there',
  NC: 'nothing',
};

/** The contacts of a plug by its face, in the order of their numbers. Source: design guide and card specification. */
const contactsOf = (kind: InletKind): readonly Contact[] =>
  inletFace[kind].rows
    .flat()
    .sort((a, b) => a.pin - b.pin)
    .map(({ pin, signal }) => ({ pin: String(pin), carries: signalText[signal] }));

const latchOut =
  'Machine off and its lead out. Press the latch, rock the block along its long side, never pull on wires.';
const latchIn = 'Latch on the side of the nose, straight down until it clicks; tug, and look that no gap is left.';

const cardIntoProcessor: Never = {
  id: 'cpu-8',
  into: 'a processor inlet',
  happens: 'its +12 and ground stand in the other row: +12 V is shorted to ground, and board or cable burn',
};
const processorIntoCard: Never = {
  id: 'card-8',
  into: 'a card inlet',
  happens: 'its +12 and ground stand in the other row: +12 V is shorted to ground, and card or cable burn',
};
const otherSupply: Never = {
  id: null,
  into: 'a socket of another supply',
  happens:
    'supply ends follow no standard: +12 V may come where +5 V or ground belongs, and all that hangs on it burns',
};

export const powerConnectors: readonly Connector[] = [
  {
    id: 'main-24',
    group: 'supply',
    name: 'Main, 24-pin in one piece',
    looks: { look: 'block', pins: 24, rows: 2, splits: 'whole' },
    drawing: { as: 'face', kind: 'main-24' },
    printed: 'ATX, MB, M/B, P1',
    carries: 'All rails, standby, the start line and power good, for the board.',
    contacts: contactsOf('main-24'),
    goesInto:
      'The 24-pin main inlet at the edge of the board; on a 20-pin inlet with its last four ' +
      'hanging over, if nothing is in the way.',
    never: [otherSupply],
    out:
      'Machine off and its lead out. Press the latch and rock the long block end to end; hold ' +
      'the board with the other hand.',
    in: latchIn,
    recordAs: 'main-24',
  },
  {
    id: 'main-20+4',
    group: 'supply',
    name: 'Main, 20 + 4',
    looks: { look: 'block', pins: 24, rows: 2, splits: '20+4' },
    drawing: { as: 'face', kind: 'main-24' },
    printed: 'ATX, MB, M/B, P1',
    carries: 'All rails, standby, the start line and power good, for the board.',
    contacts: contactsOf('main-24'),
    goesInto: 'The 24-pin main inlet with both pieces side by side; a 20-pin inlet with the large piece alone.',
    never: [
      {
        id: 'cpu-4',
        into: 'a processor inlet with its loose four',
        happens:
          'these four carry +12, +5, +3.3 and ground: +5 and +3.3 V come where +12 or ground ' +
          'belongs, and the board burns',
      },
      otherSupply,
    ],
    out: 'Both pieces together: press the latch of the large one and rock the block end to end.',
    in: 'Slide the four beside the twenty until both are level, then push them in as one.',
    recordAs: 'main-20+4',
  },
  {
    id: 'main-20',
    group: 'supply',
    name: 'Main, 20-pin',
    looks: { look: 'block', pins: 20, rows: 2, splits: 'whole' },
    drawing: { as: 'face', kind: 'main-20' },
    printed: 'ATX, P1',
    carries: 'All rails, standby, the start line and power good, for an older board.',
    contacts: contactsOf('main-20'),
    goesInto: 'The 20-pin main inlet of an older board.',
    never: [
      {
        id: 'main-24',
        into: 'a 24-pin inlet',
        happens: 'it fits and starts, but the board’s +12 V goes through one contact in place of two, which overheats',
      },
      otherSupply,
    ],
    out: latchOut,
    in: latchIn,
    recordAs: 'main-20',
  },
  {
    id: 'main-own',
    group: 'supply',
    name: 'Main, a maker’s own',
    looks: { look: 'block', pins: 'other' },
    drawing: { as: 'grid', rows: ['1111111', '1111111'], latch: true },
    printed: 'nothing that is common',
    carries: 'What its maker wanted: often +12 V alone, a standby of 11 or 12 V and lines of its own.',
    contacts: [],
    goesInto: 'The board that it came with, and nothing else, but for the maker’s own adapter by name.',
    never: [
      {
        id: 'main-24',
        into: 'anything standard',
        happens: 'there is no rule for its contacts; what fits mechanically may put any voltage anywhere',
      },
    ],
    out: latchOut,
    in: 'Only into the inlet that it came out of; photograph it first.',
    recordAs: 'main-own',
  },
  {
    id: 'aux-6',
    group: 'supply',
    name: 'Auxiliary, six in a row',
    looks: { look: 'block', pins: 6, rows: 1, splits: 'whole' },
    drawing: { as: 'face', kind: 'aux-6' },
    printed: 'AUX, P2',
    carries: 'More +3.3 and +5 V for old boards.',
    contacts: contactsOf('aux-6'),
    goesInto: 'The single-row auxiliary inlet of an old board.',
    never: [otherSupply],
    out: latchOut,
    in: latchIn,
    recordAs: 'aux-6',
  },
  {
    id: 'cpu-8',
    group: 'supply',
    name: 'Processor, 8-pin in one piece',
    looks: { look: 'block', pins: 8, rows: 2, splits: 'whole', twelve: 'latch-side' },
    drawing: { as: 'face', kind: 'cpu-8' },
    printed: 'CPU, EPS, 12V',
    carries: '+12 V for the processor: four wires, four grounds.',
    contacts: contactsOf('cpu-8'),
    goesInto: 'The 8-pin processor inlet near the processor; a second one where the board has two.',
    never: [processorIntoCard, otherSupply],
    out:
      'Machine off and its lead out. The corner is narrow: press the latch with a blunt tool, ' +
      'rock along the long side.',
    in: latchIn,
    recordAs: 'cpu-8',
  },
  {
    id: 'cpu-4+4',
    group: 'supply',
    name: 'Processor, 4 + 4',
    looks: { look: 'block', pins: 8, rows: 2, splits: '4+4' },
    drawing: { as: 'face', kind: 'cpu-8' },
    printed: 'CPU, EPS, 12V',
    carries: '+12 V for the processor: two wires and two grounds in each half.',
    contacts: contactsOf('cpu-8'),
    goesInto:
      'An 8-pin processor inlet with both halves; a 4-pin one with the half that fits its key, the other tied away.',
    never: [processorIntoCard, otherSupply],
    out: 'Both halves together; each has its latch.',
    in: 'Halves side by side, in the order in which their keys fit; both click.',
    recordAs: 'cpu-4+4',
  },
  {
    id: 'cpu-4',
    group: 'supply',
    name: 'Processor, 4-pin',
    looks: { look: 'block', pins: 4, rows: 2, splits: 'whole' },
    drawing: { as: 'face', kind: 'cpu-4' },
    printed: 'CPU, 12V, P4',
    carries: '+12 V for the processor: two wires, two grounds.',
    contacts: contactsOf('cpu-4'),
    goesInto: 'The 4-pin processor inlet.',
    never: [
      {
        id: 'cpu-8',
        into: 'half of an 8-pin inlet for a strong processor',
        happens: 'its two +12 contacts carry what four are made for, and overheat',
      },
      otherSupply,
    ],
    out: latchOut,
    in: latchIn,
    recordAs: 'cpu-4',
  },
  {
    id: 'card-8',
    group: 'supply',
    name: 'Card, 8-pin in one piece',
    looks: { look: 'block', pins: 8, rows: 2, splits: 'whole', twelve: 'other-side' },
    drawing: { as: 'face', kind: 'card-8' },
    printed: 'PCIe, PCI-E, VGA',
    carries: '+12 V for a graphics card, 150 W: three wires, three grounds, two sense lines.',
    contacts: contactsOf('card-8'),
    goesInto: 'The 8-pin inlet of a card.',
    never: [cardIntoProcessor, otherSupply],
    out: 'Hold the card so that its slot bears nothing; press the latch and rock along the long side.',
    in: latchIn,
    recordAs: 'card-8',
  },
  {
    id: 'card-6+2',
    group: 'supply',
    name: 'Card, 6 + 2',
    looks: { look: 'block', pins: 8, rows: 2, splits: '6+2' },
    drawing: { as: 'face', kind: 'card-8' },
    printed: 'PCIe, PCI-E, VGA',
    carries: '+12 V for a graphics card: 150 W as eight, 75 W as six.',
    contacts: contactsOf('card-8'),
    goesInto: 'An 8-pin card inlet with both pieces; a 6-pin one with the six alone, the two tied away.',
    never: [cardIntoProcessor, otherSupply],
    out: 'Hold the card so that its slot bears nothing; press the latch and take both pieces together.',
    in: 'Hook the two beside the six until they are level, then push them in as one.',
    recordAs: 'card-6+2',
  },
  {
    id: 'card-6',
    group: 'supply',
    name: 'Card, 6-pin',
    looks: { look: 'block', pins: 6, rows: 2, splits: 'whole' },
    drawing: { as: 'face', kind: 'card-6' },
    printed: 'PCIe, PCI-E, VGA',
    carries: '+12 V for a graphics card, 75 W; the middle of the +12 row may have no contact.',
    contacts: contactsOf('card-6'),
    goesInto: 'The 6-pin inlet of a card, or of a board that feeds its slots.',
    never: [
      {
        id: 'card-8',
        into: 'an 8-pin inlet',
        happens: 'the card asks for 150 W through contacts meant for 75, or does not start',
      },
      otherSupply,
    ],
    out: 'Hold the card so that its slot bears nothing; press the latch.',
    in: latchIn,
    recordAs: 'card-6',
  },
  {
    id: 'card-16',
    group: 'supply',
    name: 'Card, 16-pin (12V-2x6)',
    looks: { look: 'block', pins: 16, rows: 2, splits: 'whole' },
    drawing: { as: 'grid', rows: ['111111', '111111'], latch: true, small: 4 },
    printed: '12VHPWR, 12V-2x6, and coded watts: 150, 300, 450, 600 W',
    carries: '+12 V for a graphics card: six contacts, six grounds, and four small ones that tell the watts.',
    contacts: [
      { pin: '1 to 6', carries: '+12 V' },
      { pin: '7 to 12', carries: 'ground' },
      { pin: 'S1', carries: 'card power stable, optional' },
      { pin: 'S2', carries: 'plug present, optional' },
      {
        pin: 'S3, S4',
        carries: 'coded watts: both to ground 600 W, one of them 450 or 300 W by the print, none 150 W or nothing',
      },
    ],
    goesInto: 'The 16-pin inlet of a card.',
    never: [
      {
        id: 'card-12',
        into: 'a 12-pin inlet',
        happens: 'without the four small contacts nothing tells the card what it may draw',
      },
      otherSupply,
    ],
    out: 'Machine off and its lead out. Press the latch, pull straight along the cable’s axis, never bent.',
    in: 'Straight, until no gap is to be seen all round and it clicks; no bend within 35 mm. A plug partly home melts.',
    recordAs: 'card-16',
  },
  {
    id: 'card-12',
    group: 'supply',
    name: 'Card, 12-pin, a maker’s own',
    looks: { look: 'block', pins: 12, rows: 2, splits: 'whole' },
    drawing: { as: 'grid', rows: ['111111', '111111'], latch: true },
    printed: 'nothing that is common',
    carries: '+12 V for the cards of one maker: six contacts, six grounds, no coded watts.',
    contacts: [
      { pin: '1 to 6', carries: '+12 V' },
      { pin: '7 to 12', carries: 'ground' },
    ],
    goesInto: 'The card that it came with, by the maker’s own cable.',
    never: [
      {
        id: 'card-16',
        into: 'a 16-pin inlet',
        happens: 'the card finds no coded watts: it draws 150 W at most, or does not start',
      },
    ],
    out: 'Machine off and its lead out; press the latch and pull straight.',
    in: 'Straight until it clicks and no gap is left.',
    recordAs: null,
  },
  {
    id: 'supply-socket',
    group: 'supply',
    name: 'Socket at a modular supply',
    looks: { look: 'supply', pins: null },
    drawing: { as: 'grid', rows: ['11111', '11111'], latch: true },
    printed: 'MB, CPU, PCIe, SATA, PERIF, or a number',
    carries: 'What its maker put there; no two lines of supplies need be alike.',
    contacts: [],
    goesInto: 'It takes the cables that came with this very supply, by the name of the socket.',
    never: [
      {
        id: null,
        into: 'a cable of another supply, even of the same maker',
        happens: 'it often fits, and puts +12 V on what is made for +5 V: every drive on it dies at once',
      },
    ],
    out: 'Machine off and its lead out; press the latch, rock, never pull on wires.',
    in: 'By the socket’s name, until it clicks; what its pins are stands under Cable bags where somebody probed them.',
    recordAs: null,
  },
];
