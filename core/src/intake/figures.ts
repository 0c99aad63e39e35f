/** Words by which a figure is said not to be exact. */
export const roughWords = 'about|approx|approximately|roughly|around|circa|ca|nearly|almost';
/** A figure of power, such as `125 W`. */
export const wattsPattern = /(?<![\w.,])((?:[1-4]?\d{1,3}|5000)(?:[.,]\d{1,2})?)\s*w(?:atts?)?(?!\w)/i;
/** No processor is rated at more, and nothing that is neither processor nor card. */
export const mostWattsOfProcessor = 400;
export const mostWattsOfOthers = 150;
export const wattsBehind = new RegExp(`^\\s*${wattsPattern.source}`, 'i');
const sized = /(?<![\w.,])\d{1,5}(?:[.,]\d{1,2})?[\s-]*(?:[tgm]i?b|[gm]hz|mt\/s|mm|cm|rpm|v(?:olts?)?)(?!\w)/;
const threads = /(?<![\w.,])\d{1,3}(?:t|[ -]?threads?)(?!\w)/;
const wide = /(?<![\w.,])[235]\.(?:5|25)\s*(?:"|”|in(?:ch(?:es)?)?(?!\w))/;
/** Words that are no figure of power: sizes, speeds, lengths, threads. */
export const detailPattern = new RegExp(`${sized.source}|\\btdp\\b|${threads.source}|${wide.source}`, 'i');
