import { z } from 'zod';
import { codePrefix } from '@fairwatt/contract';
import type { SecretStrength } from '@fairwatt/contract/secret-strength';

// What a field of these forms holds, with what is said where it does not.

const written = (words: string) => z.string().refine((value) => value.trim() !== '', words);
export const personName = written('Write a name, as it shall stand under what is done.');
export const deviceName = written('Call it something, such as “Bench tablet”.');
export const givenSecret = z.string().min(1, 'Enter the secret that belongs to the name.');
/** In small letters too; nothing leaves what stands. */
export const codePrefixField = z
  .string()
  .refine(
    (value) => value.trim() === '' || codePrefix.safeParse(value.trim().toUpperCase()).success,
    'Two letters, such as FW.',
  );

export const secretStrengthText: Readonly<Record<SecretStrength, string>> = {
  guessed: 'Is tried first by whoever guesses: take something less usual.',
  holds: 'Holds.',
  'holds-well': 'Holds well.',
};
