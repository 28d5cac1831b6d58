import { fromCavityWords, fromSpotList } from './index';

describe('names of cavities from words', () => {
  test.each<[string, string[] | number]>([
    ['A to Z without I, O, Q then a to c', 26],
    ['A-Z without I O Q', 23],
    ['1 to 12', 12],
    ['A1-A4, B1-B4', ['A1', 'A2', 'A3', 'A4', 'B1', 'B2', 'B3', 'B4']],
    ['30, 85, 86 and 87', ['30', '85', '86', '87']],
    ['B\nA\nC', ['B', 'A', 'C']],
    ['A–D without C', ['A', 'B', 'D']],
    ['1-320', 320],
  ])('%s', (text, expected) => {
    const read = fromCavityWords(text);
    if (!read.ok) throw new Error(read.problems[0]!.message);
    if (typeof expected === 'number') expect(read.value).toHaveLength(expected);
    else expect(read.value).toEqual(expected);
  });
  test('without I, O and Q none of them is there, and small letters follow the capitals', () => {
    const read = fromCavityWords('A to Z without I, O, Q then a to c');
    expect(read).toMatchObject({ ok: true });
    const names = read.ok ? read.value : [];
    expect(names.filter((name) => 'IOQ'.includes(name))).toEqual([]);
    expect(names.slice(-4)).toEqual(['Z', 'a', 'b', 'c']);
  });
  test.each([
    ['', 'expected names such as A to H or 1 to 12, got nothing'],
    ['Z to A', 'expected a range of letters or of numbers such as A to H or A1 to A8, got "Z to A"'],
    ['A to 9', 'expected a range of letters or of numbers such as A to H or A1 to A8, got "A to 9"'],
    ['1-9999', 'expected a range of letters or of numbers such as A to H or A1 to A8, got "1 to 9999"'],
    ['A-H without J', 'expected to leave out a name that is listed, got "J"'],
    ['A without B without C', 'expected "without" once in a part, got it twice; begin a new part with "then"'],
    ['pin_1', 'expected names of 1 to 6 letters or digits, got "pin_1"'],
    ['1-300, 1-300', 'expected at most 320 names, got more'],
    ['A'.repeat(4001), 'expected at most 4000 letters, got 4001'],
  ])('%.30s is refused', (text, message) => expect(fromCavityWords(text)).toEqual({ ok: false, problems: [{ path: '', message }] }));
});

describe('spots of cavities from a table', () => {
  const spot = (name: string, xMm: number, yMm: number, size: string | null = null) => ({ name, xMm, yMm, size });
  test.each([
    ['tabs, headings, decimal commas', 'cavity\tx\ty\nA\t-2,5\t0\nB\t2,5\t0', [spot('A', -2.5, 0), spot('B', 2.5, 0)]],
    ['commas and a size', 'A,-2.5,0,16\nB,2.5,0,', [spot('A', -2.5, 0, '16'), spot('B', 2.5, 0)]],
    ['semicolons, empty lines, a true minus', 'A;−1;.5\n\nB;1;.5\n', [spot('A', -1, 0.5), spot('B', 1, 0.5)]],
  ])('%s', (_, text, expected) => expect(fromSpotList(text)).toEqual({ ok: true, value: expected }));
  test.each([
    ['nothing', '', ': expected a row for each cavity: name, x, y in mm, got none'],
    ['a word for a figure', 'A\t1\t2\nB\tleft\t2', 'line 2, x: expected millimetres from -100 to 100, got "left"'],
    ['a metre', 'A\t1\t1000', 'line 1, y: expected millimetres from -100 to 100, got "1000"'],
    ['no name', 'A\t1\t2\n\t3\t4', 'line 2, name: expected 1 to 6 letters or digits, got ""'],
    ['a column short', 'A\t1\t2\nB\t3', 'line 2, y: expected millimetres from -100 to 100, got ""'],
    ['too many', 'A\t1\t1\n'.repeat(321), ': expected at most 320 cavities, got 321'],
    ['ten megabytes', 'A\t1\t1\n'.repeat(1_500_000), ': expected at most 40000 letters, got 9000000'],
  ])('%s is refused with its place', (_, text, expected) => {
    const read = fromSpotList(text);
    expect(read.ok ? [] : read.problems.map(({ path, message }) => `${path}: ${message}`)).toContain(expected);
  });
});
