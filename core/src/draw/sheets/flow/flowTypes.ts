import type { Colour } from '../../../model';
import type { Drawing, Face, Post, SheetPage } from '../../drawing';

export const PAPERS = {
  A4: { widthMm: 210, heightMm: 297 },
  Letter: { widthMm: 215.9, heightMm: 279.4 },
  A3: { widthMm: 297, heightMm: 420 },
} as const;
export type Paper = keyof typeof PAPERS;

export interface SheetMeta {
  paper: Paper;
  job: string;
  loom: string;
  /** "revision 1" or "draft" */
  revision: string;
  date: string;
}

export interface Column {
  title: string;
  /** share of the width */
  share: number;
  face?: Face;
  align?: 'start' | 'end';
  /** read at arm's length: set large on the cards of a crew */
  isBig?: boolean;
}

/** Words, a colour as swatch and word, a box to tick, or a strip length at its true size. */
export type Cell = string | { colour: Colour } | { tick: true } | { stripMm: number };

/** What is said at the top of a card. */
export interface CardHead {
  /** by which the floor opens it */
  id: string;
  title: string;
  words: string;
  /** where on the loom it is */
  here: Drawing;
  /** small enough to stand in the head: the face of a housing, the look of a reel */
  picture?: Drawing | null;
}

/** What a part of a page is about: by which the floor opens it, and where on the loom it is. */
export interface About {
  id: string;
  here: Drawing;
}

/** Rows of a table that belong to one thing, under a line about it. */
export interface Band {
  id: string;
  title: string;
  words: string;
  here: Drawing;
  picture?: Drawing | null;
  rows: readonly (readonly Cell[])[];
}

export interface Flow {
  readonly widthMm: number;
  sheet(title: string, post: Post, lead?: string): void;
  /** keepMm: as much of what follows stays with it; about: drawn at its right, and what the code of its page opens where it is the first there */
  heading(words: string, keepMm?: number, about?: About): void;
  paragraph(words: string, face?: Face): void;
  table(columns: readonly Column[], rows: readonly (readonly Cell[])[]): void;
  /** the same in two columns, read down the left one first */
  twin(columns: readonly Column[], rows: readonly (readonly Cell[])[]): void;
  /** one table in parts; the code of a page opens its first one */
  bands(columns: readonly Column[], bands: readonly Band[]): void;
  picture(drawing: Drawing): void;
  /** small ones side by side, each where the shortest column ends */
  pack(drawings: readonly Drawing[]): void;
  /** what belongs together stays on one page where one page holds it */
  card(head: CardHead, fill: () => void): void;
  finish(): SheetPage[];
}
