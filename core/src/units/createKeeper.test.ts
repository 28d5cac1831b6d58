import { createKeeper } from './createKeeper';

test('what was made of an object is given back while the rest that it was made with is the same', () => {
  const keep = createKeeper<object, number>();
  const [one, other, zones] = [{}, {}, {}];
  let made = 0;
  const make = () => ++made;
  expect([keep(one, [zones, 5], make), keep(one, [zones, 5], make), keep(other, [zones, 5], make)]).toEqual([1, 1, 2]);
  // another length, other zones: made anew, and the last one is kept
  expect([keep(one, [zones, 6], make), keep(one, [{}, 6], make), keep(one, [zones, 5], make)]).toEqual([3, 4, 5]);
});
