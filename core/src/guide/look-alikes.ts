/** Two connectors that people take for one another. */
export interface LookAlikes {
  readonly a: string;
  readonly b: string;
  readonly tell: string;
  readonly harm: string;
}

/** In the order of what goes wrong when they are swapped. */
export const lookAlikes: readonly LookAlikes[] = [
  {
    a: 'cpu-8',
    b: 'card-8',
    tell:
      'Processor: yellow in the row of the latch. Card: yellow in the other row, and one corner ' +
      'of the card plug’s shape differs. Never trust that it fits.',
    harm: '+12 V shorted to ground: board, card or cable burn.',
  },
  {
    a: 'cpu-4+4',
    b: 'card-6+2',
    tell: 'Two halves of four are for the processor; six with a loose two are for a card.',
    harm: '+12 V shorted to ground.',
  },
  {
    a: 'main-20+4',
    b: 'cpu-4',
    tell: 'The loose four of the main plug have four colours; a processor plug has two yellow and two black.',
    harm: '+5 and +3.3 V on the processor’s inlet: the board burns.',
  },
  {
    a: 'light-5',
    b: 'light-12',
    tell: 'Three pins with a gap are 5 V, four pins in a row are 12 V.',
    harm: '12 V on lights for 5 V: all of them burn.',
  },
  {
    a: 'peripheral-4',
    b: 'small-drive-4',
    tell: 'The small one has its colours the other way round: red first.',
    harm: '+12 V where +5 V belongs, when pins are bridged by hand.',
  },
  {
    a: 'card-16',
    b: 'card-12',
    tell: 'The 16-pin has four small contacts beside the twelve.',
    harm: 'No coded watts: the card does not know what it may draw.',
  },
  {
    a: 'main-24',
    b: 'main-20+4',
    tell: 'A seam between the twentieth and the last four.',
    harm: 'None, but the loose four left out starve the board.',
  },
  {
    a: 'main-24',
    b: 'main-20',
    tell: 'Twelve against ten in a row.',
    harm: 'Twenty in a board for twenty-four: its +12 V contact overheats.',
  },
  {
    a: 'cpu-8',
    b: 'cpu-4',
    tell: 'Count: four in a row, or two.',
    harm: 'Four on a strong processor: contacts overheat.',
  },
  {
    a: 'card-8',
    b: 'card-6',
    tell: 'Four in a row, or three.',
    harm: 'Six in an eight: 150 W through contacts for 75.',
  },
  {
    a: 'card-6',
    b: 'aux-6',
    tell: 'Two rows of three against one row of six.',
    harm: 'They do not fit; wires that are swapped by hand put +12 V on +3.3.',
  },
  {
    a: 'card-16',
    b: 'main-own',
    tell: 'Small pitch with four tiny contacts against a maker’s main of ordinary pitch.',
    harm: 'No rule for the other’s contacts.',
  },
  {
    a: 'supply-socket',
    b: 'card-8',
    tell: 'A supply end may look just like a card plug; the wires’ other end decides.',
    harm: 'A supply end in a card: any voltage anywhere.',
  },
  {
    a: 'sata',
    b: 'sata-data',
    tell: 'Fifteen contacts, wide, coloured wires; seven contacts, narrow, one flat lead.',
    harm: 'None: they do not fit.',
  },
  { a: 'sata', b: 'sata-slim', tell: 'Fifteen contacts or six.', harm: 'Forced, it breaks the tongue.' },
  {
    a: 'fan-4',
    b: 'light-12',
    tell: 'A fan header has a ridge beside its pins, a lighting header an arrow or 12V.',
    harm: 'Fan, lights or header are damaged.',
  },
  {
    a: 'fan-3',
    b: 'light-5',
    tell: 'Three side by side with a ridge, or two, a gap, and one.',
    harm: '+12 V on lights for 5 V.',
  },
  {
    a: 'fan-3',
    b: 'fan-4',
    tell: 'Three or four in a row; both go on either, by the ridge.',
    harm: 'None; the speed may not be set.',
  },
  {
    a: 'usb-2',
    b: 'front-audio',
    tell: 'USB: the missing pin is at a corner’s end. Audio: it is the second from the end.',
    harm: '+5 V on sound lines, or a dead USB port.',
  },
  {
    a: 'front-panel',
    b: 'usb-2',
    tell: 'By the print; the missing pins are at opposite rows.',
    harm: '+5 V onto switches.',
  },
  {
    a: 'c13',
    b: 'c19',
    tell: 'C19 is larger with its blades lying across.',
    harm: 'None directly; an adapter lets 16 A through a lead for 10.',
  },
  {
    a: 'c13',
    b: 'c15',
    tell: 'C15 has a notch opposite the earth.',
    harm: 'C13 does not go into a hot device’s inlet, and should not.',
  },
];
