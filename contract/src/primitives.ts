import { z } from 'zod';
import './plain-words.ts';

/** Text with a limit; control characters other than line breaks and tabs are refused. */
const isControl = (character: string) =>
  character < ' ' && character !== '\n' && character !== '\r' && character !== '\t';
export const text = (most: number) =>
  z
    .string()
    .max(most, `at most ${most} characters`)
    .refine((value) => !Array.from(value).some(isControl), 'contains control characters')
    .refine((value) => value.isWellFormed(), 'contains half a character');
export const line = (most = 120) => text(most).refine((value) => value.trim() !== '', 'must not be empty');
/** Identifiers inside a job or a shop. */
export const id = z
  .string()
  .regex(/^[A-Za-z0-9][A-Za-z0-9._-]{0,63}$/, 'letters, digits, dot, dash and underscore, at most 64');
export const uuid = z.uuid();
/** An instant of the times in which there are such machines; a database keeps no year 0. */
export const instant = z.iso
  .datetime({ precision: 3 })
  .refine((value) => value >= '1970' && value < '2500', 'is not a time of these days');
/** The version of something that stands in a job. */
export const version = z.int().min(1).max(2_000_000_000);
/** The version that was seen; 0 where nothing stood. */
export const seenVersion = z.int().min(0).max(2_000_000_000);
/** A figure inside bounds, with the bounds in the message. */
export const figure = (least: number, most: number) =>
  z.number('must be a number').min(least, `at least ${least}`).max(most, `at most ${most}`);
export const codePrefixPattern = /^[A-Z]{2}$/;
/** What a shop's job codes begin with. */
export const codePrefix = z.string().regex(codePrefixPattern, 'two capital letters');
export const jobCode = z.string().regex(/^[A-Z]{2}-\d{4,6}$/, 'such as LQ-0142');
