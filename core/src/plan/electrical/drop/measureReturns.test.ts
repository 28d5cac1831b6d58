import type { Currents } from '../currents/currents';
import { measureReturns, type UnitPins } from './measureReturns';

const amperes = (value: number): Currents => ({ on: [value], heat: [value], mean: [value] });
const none: UnitPins = { supplies: [], sensors: [], outputs: [], sensorGrounds: [], grounds: [], signals: [] };
const home = (pins: Partial<UnitPins>, taken: Currents | null = null) =>
  Object.fromEntries([...measureReturns({ ...none, ...pins }, 1, taken)].map(([node, { on }]) => [node, on[0]]));

describe('what a device or box takes in goes home, and no more (calculations 3)', () => {
  test.each<[string, Partial<UnitPins>, Record<number, number>]>([
    ['a pump: all by its ground', { supplies: [amperes(7)], grounds: [1] }, { 1: 7 }],
    ['two grounds share evenly', { supplies: [amperes(7)], grounds: [1, 2] }, { 1: 3.5, 2: 3.5 }],
    [
      'an injector: all by its driver, whatever is stated there',
      { supplies: [amperes(1.2)], outputs: [{ node: 1, stated: amperes(1) }] },
      { 1: 1.2 },
    ],
    [
      'two drivers without a ground by what is stated of each',
      {
        supplies: [amperes(6)],
        outputs: [
          { node: 1, stated: amperes(1) },
          { node: 2, stated: amperes(2) },
        ],
      },
      { 1: 2, 2: 4 },
    ],
    [
      'a lamp with a driver and a ground: the ground takes the rest',
      { supplies: [amperes(5)], outputs: [{ node: 1, stated: amperes(2) }], grounds: [2] },
      { 1: 2, 2: 3 },
    ],
    ['a sensor: by its sensor ground', { sensors: [amperes(0.02)], sensorGrounds: [1] }, { 1: 0.02 }],
    [
      '5 V and 12 V each by their own ground',
      { supplies: [amperes(2)], sensors: [amperes(0.02)], sensorGrounds: [1], grounds: [2] },
      { 1: 0.02, 2: 2 },
    ],
    [
      'without a sensor ground the 5 V goes by the power ground',
      { supplies: [amperes(2)], sensors: [amperes(0.5)], grounds: [1] },
      { 1: 2.5 },
    ],
    ['a current loop goes home by its signal', { sensors: [amperes(0.02)], signals: [1] }, { 1: 0.02 }],
  ])('%s', (_, pins, expected) => expect(home(pins)).toEqual(expected));

  test('a controller takes what its drivers sink home as well, and never a current backwards', () => {
    expect(home({ supplies: [amperes(2)], grounds: [1] }, amperes(6))).toEqual({ 1: 8 });
    expect(home({ supplies: [amperes(2)], grounds: [1] }, amperes(-3))).toEqual({ 1: 0 });
  });
});
