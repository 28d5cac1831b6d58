import type { SpotlightActionData } from '@mantine/spotlight';
import { rankActions } from './rankActions';

const action = (id: string, label: string, description = ''): SpotlightActionData => ({ id, label, description });
const ALL = [
  action('finding', 'C-106 is behind a fuse of 15 A', 'check PO2'),
  action('other', 'C-106B', 'pump minus, cut 400 mm'),
  action('wire', 'C-106', 'fan plus, cut 915 mm'),
  action('run', 'dash hoop to pedal', 'run, 140 mm'),
  action('end', 'pedal', 'end'),
];
const find = (query: string) => rankActions(query, ALL).map((one) => ('id' in one ? one.id : ''));

test('a thing of that name comes first, then what begins with it, then what speaks of it', () => {
  expect(find('C-106')).toEqual(['wire', 'finding', 'other']);
  expect(find('c-106 ')[0]).toBe('wire');
  expect(find('pedal')).toEqual(['end', 'run']);
});

test('words are found in any order, in what is said of a thing too; what matches nothing is left out', () => {
  expect(find('pedal dash')).toEqual(['run']);
  expect(find('915')).toEqual(['wire']);
  expect(find('gearbox')).toEqual([]);
  expect(find('')).toHaveLength(ALL.length);
});
