/** Faces a drawing may use; both are shipped, so paper and screen agree. */
export type Face = 'sans' | 'bold' | 'narrow' | 'narrow-bold' | 'mono';

/** A mark on paper. Millimetres from the top left corner; colours as #rrggbb. layer: of a DXF, where it has one of its own. */
export type Mark = PlainMark & { layer?: string };

type PlainMark =
  /** part of another drawing, cut at its edges: what stands at from there comes to x, y */
  | { kind: 'window'; x: number; y: number; w: number; h: number; from: Point; scale: number; marks: readonly Mark[] }
  | { kind: 'path'; d: string; fill: string | null; stroke: string | null; width: number; dash?: number[] }
  | { kind: 'rect'; x: number; y: number; w: number; h: number; fill: string | null; stroke: string | null; width: number }
  | { kind: 'circle'; x: number; y: number; r: number; fill: string | null; stroke: string | null; width: number; dash?: number[] }
  | {
      kind: 'text';
      x: number;
      y: number;
      text: string;
      size: number;
      face: Face;
      anchor: 'start' | 'middle' | 'end';
      fill: string;
      turn?: number;
    };

/** A picture, computed once and written as SVG or PDF. */
export interface Drawing {
  widthMm: number;
  heightMm: number;
  marks: Mark[];
}

/** Where a page of the pack is used, in the order of the work; office: what the planner keeps. */
export const POST_WORDS = {
  ...{ kit: 'Kit', cut: 'Cutting bench', crimp: 'Crimp bench', board: 'Board', twist: 'Twisting post', sleeve: 'Sleeving' },
  ...{ test: 'Test', vehicle: 'Vehicle', wall: 'Wall', pocket: 'Pocket', office: 'Planner' },
} as const;
export type Post = keyof typeof POST_WORDS;

/** What a crew works from; the rest hangs on the wall, goes into a pocket or stays with the planner. */
export const isCrewPost = (post: Post): boolean => !['wall', 'pocket', 'office'].includes(post);

/** What may be asked for of a pack: a post, or all that a crew works from. */
export const POSTS_ASKED: readonly string[] = ['crew', ...Object.keys(POST_WORDS)];

/** Is a page of the post that is asked for, or of all of them? One that an earlier Wattograph froze is of the planner. */
export const isOfPost = ({ post = 'office' }: { post?: Post }, asked: string | null): boolean =>
  asked === null || post === asked || (asked === 'crew' && isCrewPost(post));

/** A place on a page for a code that opens a card on the floor. */
export interface CardCode {
  card: string;
  x: number;
  y: number;
  sizeMm: number;
}

/** A page of the build pack with the name of the sheet it belongs to. */
export interface SheetPage extends Drawing {
  sheet: string;
  /** none on a page that an earlier Wattograph froze */
  post?: Post;
  codes?: CardCode[];
}

export const INK = '#14242b';
export const FAINT = '#5d6c70';
export const HAIR = '#b9c4c2';

/** x to the right, y down. */
export type Point = readonly [x: number, y: number];

/** A straight line. */
export function line([x1, y1]: Point, [x2, y2]: Point, width: number, stroke = INK, dash?: number[]): Mark {
  return { kind: 'path', d: `M${x1} ${y1}L${x2} ${y2}`, fill: null, stroke, width, ...(dash ? { dash } : {}) };
}

/** A line of text; y is its baseline, size in mm. */
export function text(x: number, y: number, words: string, size: number, rest: Partial<Extract<Mark, { kind: 'text' }>> = {}): Mark {
  return { kind: 'text', x, y, text: words, size, face: 'narrow', anchor: 'start', fill: INK, ...rest };
}

/** The same mark elsewhere. Paths move by their coordinates, which are absolute pairs. */
export function moveMark(mark: Mark, dx: number, dy: number): Mark {
  if (mark.kind !== 'path') return { ...mark, x: mark.x + dx, y: mark.y + dy };
  const d = mark.d.replace(
    /(-?[\d.]+)[ ,](-?[\d.]+)/g,
    (_, x: string, y: string) => `${(Number(x) + dx).toFixed(2)} ${(Number(y) + dy).toFixed(2)}`,
  );
  return { ...mark, d };
}
