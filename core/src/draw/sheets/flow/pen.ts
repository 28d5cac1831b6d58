import { isCrewPost, type CardCode, type Mark, type Post, type SheetPage } from '../../drawing';
import { PAPERS, type SheetMeta } from './flowTypes';
import { TYPES, type Type } from './type';

export const MARGIN = 14;
const TOP = 27;
const FOOT_MM = 15;
/** in the head of a page, mm: job, loom and revision to the right, a code beside them */
export const HEAD_WORDS_MM = 70;
export const PAGE_CODE_MM = 14.5;

/** Where a flow stands: its page, and how far down. */
export class Pen {
  readonly pages: (SheetPage & { codes: CardCode[] })[] = [];
  /** of the page that is being filled */
  marks: Mark[] = [];
  y = TOP;
  type: Type = TYPES.office;
  readonly widthMm: number;
  readonly bottom: number;
  readonly #paper: { widthMm: number; heightMm: number };
  #sheet = '';
  #post: Post = 'office';

  constructor({ paper }: Pick<SheetMeta, 'paper'>) {
    this.#paper = PAPERS[paper];
    this.widthMm = this.#paper.widthMm - 2 * MARGIN;
    this.bottom = this.#paper.heightMm - FOOT_MM;
  }

  beginSheet(title: string, post: Post): void {
    this.#sheet = title;
    this.#post = post;
    this.type = post === 'office' ? TYPES.office : TYPES.crew;
    this.newPage();
  }

  newPage(): void {
    this.marks = [];
    const code = { x: this.#paper.widthMm - MARGIN - HEAD_WORDS_MM - PAGE_CODE_MM - 2, y: 4.8, sizeMm: PAGE_CODE_MM };
    const codes = !isCrewPost(this.#post) ? [] : [{ card: `post ${this.#post}`, ...code }];
    this.pages.push({ ...this.#paper, marks: this.marks, sheet: this.#sheet, post: this.#post, codes });
    this.y = TOP;
  }

  /** What is first told of on a page is what its code opens; until then it opens the post. */
  openBy(card: string): void {
    const [code] = this.pages.at(-1)!.codes;
    if (code?.card === `post ${this.#post}`) code.card = card;
  }

  get isAtTop(): boolean {
    return this.y === TOP;
  }

  /** A new page where so much does not fit on this one. */
  need(mm: number): void {
    if (this.y + mm > this.bottom && !this.isAtTop) this.newPage();
  }

  /** Undoes all that is drawn from here on. */
  mark(): () => void {
    const before = { pages: this.pages.length, marks: this.marks.length, codes: this.pages.at(-1)!.codes.length, y: this.y };
    return () => {
      this.pages.length = before.pages;
      const page = this.pages.at(-1)!;
      this.marks = page.marks;
      this.marks.length = before.marks;
      page.codes.length = before.codes;
      this.y = before.y;
    };
  }
}
