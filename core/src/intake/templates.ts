/** A machine of a usual kind, in the words of the line, so that it can be read and changed before it is taken in. */
export interface MachineTemplate {
  readonly id: string;
  readonly name: string;
  readonly line: string;
}

/** Machines as they come to a bench (bench practice); each is a line that is understood as a whole. */
export const machineTemplates: readonly MachineTemplate[] = [
  {
    id: 'office',
    name: 'Office desktop',
    line: 'tower, board 24+4, 6-core 65 W, 2x8 newer memory, 1 ssd, 2 fans, 400 W supply',
  },
  {
    id: 'small',
    name: 'Small case with a card',
    line: 'small case, board 24+8, 8-core 65 W, 2x16 newer memory, card 8 170 W, 2 m.2, 3 fans, 600 W SFX supply',
  },
  {
    id: 'tower-one-card',
    name: 'Tower with one card',
    line:
      'tower, board 24+8, 8-core 105 W, 2x16 newer memory, card 2x8 250 W, 1 m.2, 1 hard drive, ' +
      '4 fans, 650 W supply',
  },
  {
    id: 'tower-large-card',
    name: 'Tower with a large card',
    line:
      'tower, board 24+8+4, 8-core 125 W, 2x16 newer memory, card 16-pin 320 W, 2 m.2, aio 240, ' +
      '4 case fans, 850 W supply',
  },
  {
    id: 'workstation',
    name: 'Workstation',
    line:
      'tower, board 24+8+8, 24-core 250 W, 4x32 newer memory, card 16-pin 300 W, 2 m.2, 2 hard ' +
      'drives, aio 360, 3 case fans, 1000 W supply',
  },
  {
    id: 'two-cards',
    name: 'Two cards',
    line:
      'tower, board 24+8+8, 16-core 170 W, 4x16 newer memory, 2x card 2x8 250 W, 2 m.2, aio ' +
      '360, 4 case fans, 1200 W supply',
  },
  {
    id: 'many-drives',
    name: 'Many drives',
    line: 'tower, board 24+8, 6-core 65 W, 2x16 newer memory, network card, 1 m.2, 8 hard drives, 5 fans, 550 W supply',
  },
  {
    id: 'old-tower',
    name: 'Old tower',
    line:
      'tower, old board 20+4, old processor, 2 older memory modules, card slot only 30 W, 2 old ' +
      'drives, 1 old optical drive, 1 floppy, 2 fans, 300 W supply',
  },
  {
    id: 'maker-slim',
    name: 'Maker-built, slim',
    line:
      'slim case, maker-built board, 6-core 65 W, 2x8 newer memory, 1 ssd, 1 optical drive, 1 ' +
      'fan, 260 W TFX supply',
  },
  {
    id: 'kiosk',
    name: 'Kiosk or till',
    line: 'small case, board 24+4, 4-core 35 W, 1x8 newer memory, 1 ssd, 1 fan, usb devices, 200 W Flex supply',
  },
  {
    id: 'television',
    name: 'Beside a television',
    line:
      'small case, board 24+8, 6-core 65 W, 2x8 newer memory, card slot only 75 W, 1 m.2, 1 ' +
      'laptop drive, 2 fans, 450 W SFX supply',
  },
];
