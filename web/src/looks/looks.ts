// In this order they stand in the page: a later one wins over an earlier.
import text from './text.module.css';
import page from './page.module.css';
import entry from './entry.module.css';
import keys from './keys.module.css';
import signs from './signs.module.css';
import lists from './lists.module.css';
import table from './table.module.css';
import space from './space.module.css';

/** How words are set. */
type TextLook = 'quiet' | 'nowrap' | 'fig' | 'visuallyHidden' | 'label' | 'decides' | 'blockNote' | 'errorText';

/** How a screen is divided. */
type PageLook =
  | 'page'
  | 'pageHead'
  | 'block'
  | 'columns'
  | 'rowActions'
  | 'push'
  | 'noPrint'
  | 'station'
  | 'work'
  | 'side'
  | 'loadHead'
  | 'dialog';

/** What is pressed. */
type KeyLook = 'button' | 'plain' | 'strong' | 'primary' | 'answer' | 'key' | 'keys' | 'digit' | 'single' | 'barButton';

/** What is filled in. */
type EntryLook =
  | 'fields'
  | 'byThree'
  | 'byFour'
  | 'wide'
  | 'field'
  | 'name'
  | 'error'
  | 'input'
  | 'chooser'
  | 'tickBox'
  | 'tick'
  | 'ranges'
  | 'rangeRow'
  | 'feeds'
  | 'cellInput';

/** A verdict's mark: its colour, and its shape before the word. */
export type Mark = 'pass' | 'fail' | 'marginal' | 'tight' | 'cannot-tell';

/** What tells and warns. */
type SignLook = 'verdict' | Mark | 'tag' | 'small' | 'caution' | 'notice' | 'bad' | 'mark' | 'conflict' | 'empty';

/** What stands under each other. */
type ListLook = 'trail' | 'what' | 'factsList' | 'nextCheck' | 'top' | 'table' | 'sheetTable' | 'num' | 'gone';

/** Where something stands, and how it is set there: said of one place, whatever the thing wears otherwise. */
type PlaceLook =
  | 'justBelow'
  | 'below'
  | 'wellBelow'
  | 'above'
  | 'wellAbove'
  | 'fills'
  | 'yields'
  | 'atEnd'
  | 'onFoot'
  | 'midLine'
  | 'centred'
  | 'wrapping'
  | 'ownLine'
  | 'large'
  | 'regular'
  | 'strongly'
  | 'wraps';

type Look = PlaceLook | TextLook | PageLook | KeyLook | EntryLook | SignLook | ListLook;

/**
 * What many components wear, by name. What one alone wears stands in a sheet beside it, which comes after these and so
 * may change them: they are the first that the page loads.
 */
export const looks = { ...text, ...page, ...entry, ...keys, ...signs, ...lists, ...table, ...space } as Readonly<
  Record<Look, string>
>;

/** A verdict's word with its mark. */
export const verdictLook = (mark: Mark) => `${looks.verdict} ${looks[mark]}`;
