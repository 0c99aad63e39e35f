import type { Connector, Contact } from './connector.ts';

const contacts = (...carries: readonly string[]): readonly Contact[] =>
  carries.map((text, index) => ({ pin: String(index + 1), carries: text }));

const flatKey = 'The key is an L at one end: it goes in one way only.';
const offFirst = 'Machine off and its lead out.';

export const driveConnectors: readonly Connector[] = [
  {
    id: 'sata',
    group: 'drive',
    name: 'Drive power, flat (SATA)',
    looks: { look: 'flat', pins: 15 },
    drawing: { as: 'flat', contacts: 15 },
    printed: 'SATA',
    carries: '+12, +5 and, on most cables, +3.3 V: about 54 W at most, less on thin wires.',
    contacts: [
      { pin: '1 to 3', carries: '+3.3 V, orange; pin 3 switches newer drives off where it is live' },
      { pin: '4 to 6', carries: 'ground, black' },
      { pin: '7 to 9', carries: '+5 V, red' },
      { pin: '10', carries: 'ground, black' },
      { pin: '11', carries: 'activity, or staggered start' },
      { pin: '12', carries: 'ground, black' },
      { pin: '13 to 15', carries: '+12 V, yellow' },
    ],
    goesInto: `Drives, optical drives, hubs, some pumps. ${flatKey}`,
    never: [
      {
        id: 'card-6',
        into: 'an adapter to a card plug',
        happens: 'a card draws 75 W and more where 54 W are the most: the plug melts, moulded adapters burn',
      },
      {
        id: null,
        into: 'a socket of another supply with its supply end',
        happens: '+12 V comes where +5 V belongs, and every drive on the cable dies',
      },
    ],
    out: `${offFirst} Straight off along its axis; sideways force breaks the drive’s thin tongue.`,
    in: 'L over L, straight, until it is level; some have a metal clip.',
    recordAs: 'sata',
  },
  {
    id: 'sata-slim',
    group: 'drive',
    name: 'Slim drive power, six contacts',
    looks: { look: 'flat', pins: 6 },
    drawing: { as: 'flat', contacts: 6 },
    printed: 'SATA, ODD',
    carries: '+5 V for a slim optical drive.',
    contacts: contacts('device present', '+5 V', '+5 V', 'diagnostics', 'ground', 'ground'),
    goesInto: `A slim optical drive. ${flatKey}`,
    never: [],
    out: `${offFirst} Straight off along its axis.`,
    in: 'L over L, straight, until it is level.',
    recordAs: null,
  },
  {
    id: 'sata-data',
    group: 'data',
    name: 'Drive data, flat (SATA)',
    looks: { look: 'flat', pins: 7 },
    drawing: { as: 'flat', contacts: 7 },
    printed: 'SATA, a number',
    carries: 'Data, no power: two pairs and three grounds.',
    contacts: contacts(
      'ground',
      'to the drive +',
      'to the drive -',
      'ground',
      'from the drive -',
      'from the drive +',
      'ground',
    ),
    goesInto: `A drive and a numbered port of the board. ${flatKey} Note the port: systems start from the first.`,
    never: [],
    out: `${offFirst} Press the metal clip where there is one, straight off.`,
    in: 'L over L, straight; the clip clicks.',
    recordAs: null,
  },
  {
    id: 'peripheral-4',
    group: 'drive',
    name: '4-pin peripheral',
    looks: { look: 'round', pins: 4, rows: 1 },
    drawing: { as: 'round-pins' },
    printed: 'HDD, P3, PERIF',
    carries: '+12 V, two grounds, +5 V.',
    contacts: contacts('+12 V, yellow', 'ground, black', 'ground, black', '+5 V, red'),
    goesInto:
      'Old drives, fans, hubs, some boards. Two corners of one long side are cut: they meet those of the other part.',
    never: [
      {
        id: 'peripheral-4',
        into: 'its counterpart the wrong way round, by force',
        happens: '+12 V comes where +5 V belongs, and the drive burns; soft housings let it happen',
      },
    ],
    out: `${offFirst} It sits tight: rock it lengthwise, hold the housing, never the wires.`,
    in: 'Cut corners together; look that no round contact slips back out of the housing.',
    recordAs: 'peripheral-4',
  },
  {
    id: 'small-drive-4',
    group: 'drive',
    name: 'Small drive, 4-pin',
    looks: { look: 'block', pins: 4, rows: 1, splits: 'whole' },
    drawing: { as: 'face', kind: 'small-drive-4' },
    printed: 'FDD, P7',
    carries: '+5 V, two grounds, +12 V: the other way round than the peripheral plug.',
    contacts: contacts('+5 V, red', 'ground, black', 'ground, black', '+12 V, yellow'),
    goesInto: 'A small diskette drive, some cards and controllers. Its clip goes over the edge of the shroud.',
    never: [
      {
        id: 'small-drive-4',
        into: 'bare pins one place beside, or upside down',
        happens: '+12 V comes where +5 V or ground belongs, and the drive burns; without a shroud nothing stops it',
      },
    ],
    out: `${offFirst} Lift the clip over its edge, straight off.`,
    in: 'Ribs to the board’s underside as it came; count the pins on both sides before power.',
    recordAs: 'small-drive-4',
  },
];
