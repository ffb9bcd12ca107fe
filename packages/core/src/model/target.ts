/** What a column of a source can become. `own` is a field of the person's own, `skip` leaves it out. */
export const TARGETS = [
  'fullName',
  'honorific',
  'firstName',
  'middleName',
  'lastName',
  'suffix',
  'title',
  'company',
  'website',
  'email',
  'phone',
  'place',
  'street',
  'city',
  'postcode',
  'region',
  'country',
  'earlierAddress',
  'profile',
  'note',
  'sector',
  'headcount',
  'own',
  'skip',
] as const;

export type Target = (typeof TARGETS)[number];

/** What a column was recognised by: its heading, its values, both, or by what stands beside it; nothing: it was not recognised. */
export const RECOGNISED_BY = ['heading', 'values', 'both', 'beside', 'nothing'] as const;
export type RecognisedBy = (typeof RECOGNISED_BY)[number];

/** What the values of a field of the person's own are; `month-date`: dates of figures that begin with the month. */
export const OWN_TYPES = ['text', 'number', 'date', 'month-date', 'yes-no'] as const;
export type OwnType = (typeof OWN_TYPES)[number];

/** How one column of a source is read. `name` is the header, or the name of an own field. */
export interface Column {
  name: string;
  target: Target;
  /** What becomes of a value where another is held already; left out: the rule of matching chooses. */
  held?: HeldRule;
  /** What an own field is called; left out: as its column. */
  own?: string;
  /** What the values of an own field are; left out: text. */
  type?: OwnType;
  /** It is made of other columns of its table, and stands behind all of these. */
  from?: Derived;
}

/** How a cell is split. `text` is the separator, or the pattern with a star for each part; the other ways need none. */
export interface SplitBy {
  how: 'separator' | 'pattern' | 'name' | 'firm-title' | 'town-county';
  text: string;
}
export const SPLITS = ['separator', 'pattern', 'name', 'firm-title', 'town-county'] as const;

/** A part of a column, or several columns joined; columns by their place in the table. */
export type Derived =
  { kind: 'part'; column: number; by: SplitBy; part: number } | { kind: 'join'; columns: number[]; between: string };

/** fill: only where nothing is held; overwrite: in the place of what is held; keep: what is held stays, a blank too. */
export const HELD_RULES = ['fill', 'overwrite', 'keep'] as const;
export type HeldRule = (typeof HELD_RULES)[number];

/** What the field is called that a column of the person's own becomes. */
export const ownName = ({ own, name }: Column): string => own ?? name;
