interface Option {
  readonly value: string;
  readonly label: string;
}

/** Manners of writing that are offered; a shop's file may name any other. */
const offered = [
  'cs-CZ',
  'da-DK',
  'de-AT',
  'de-CH',
  'de-DE',
  'en-AU',
  'en-CA',
  'en-GB',
  'en-IE',
  'en-NZ',
  'en-US',
].concat(
  ['es-ES', 'et-EE', 'fi-FI', 'fr-BE', 'fr-CA', 'fr-CH', 'fr-FR', 'hr-HR', 'hu-HU', 'is-IS', 'it-IT', 'lt-LT', 'lv-LV'],
  ['nb-NO', 'nl-BE', 'nl-NL', 'pl-PL', 'pt-BR', 'pt-PT', 'ro-RO', 'sk-SK', 'sl-SI', 'sv-SE', 'tr-TR', 'uk-UA'],
);

const named = new Intl.DisplayNames('en', { type: 'language' });
const sample = (locale: string) => new Intl.NumberFormat(locale, { numberingSystem: 'latn' }).format(1234.5);

/** Manners of writing by their names, each with a figure written so; with the one that is set among them. */
export function localeOptions(set: string): readonly Option[] {
  return [...new Set([...offered, set])]
    .map((value) => ({ value, label: `${named.of(value) ?? value}: ${sample(value)}` }))
    .sort((a, b) => a.label.localeCompare(b.label, 'en'));
}

/** The zones that this browser knows; first of all each device's own. */
export function zoneOptions(set: string): readonly Option[] {
  const zones = [...new Set(['UTC', ...Intl.supportedValuesOf('timeZone'), ...(set === '' ? [] : [set])])];
  return [{ value: '', label: 'each device' }, ...zones.map((value) => ({ value, label: value.replaceAll('_', ' ') }))];
}
