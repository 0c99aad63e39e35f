/** A field of the ground, under all that is drawn. */
export const ground = { borderWidth: 0, drawTime: 'beforeDatasetsDraw' } as const;

/** A colour of the palette, let through by this share. */
export const faint = (colour: string, share: number): string =>
  `${colour}${Math.round(share * 255)
    .toString(16)
    .padStart(2, '0')}`;
