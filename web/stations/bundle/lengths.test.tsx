import { fireEvent, screen } from '@testing-library/react';
import type { Job } from 'wattograph-core';
import { choose, listOptions, write } from '../../testing/act';
import { openLoom, type FakeStore } from '../../testing/fakeStore';
import { LengthsTable } from './LengthsTable';

const open = (change?: (job: Job) => void) => openLoom((planned) => <LengthsTable planned={planned} />, change);
const segment = (store: FakeStore, id: string) => store.job.looms.inlet!.segments[id]!;

describe('lengths', () => {
  test('a length is kept when it is one, with a decimal comma too', () => {
    const store = open();
    write('Length of primary rail to injector 1', '141,5');
    expect(segment(store, 's-inj1').lengthMm).toBe(141.5);
    for (const bad of ['0', '-4', 'long', '', '20001']) write('Length of primary rail to injector 1', bad);
    expect(segment(store, 's-inj1').lengthMm).toBe(141.5);
    expect(store.labels).toEqual(['primary rail to injector 1 141.5 mm']);
  });
  test('a length may be typed with its unit; it is kept in millimetres', () => {
    const store = open();
    for (const [typed, mm] of [
      ['14.2 cm', 142],
      ['5 1/2 in', 139.7],
      ['0,15 m', 150],
    ] as const) {
      write('Length of primary rail to injector 1', typed);
      expect(segment(store, 's-inj1').lengthMm).toBeCloseTo(mm, 9);
    }
    write('Length of primary rail to injector 1', '2 km');
    expect(segment(store, 's-inj1').lengthMm).toBe(150);
  });
  test('a second reading may be taken away again', () => {
    const store = open();
    write('Second reading of primary rail to injector 1', '133');
    expect(segment(store, 's-inj1').secondLengthMm).toBe(133);
    write('Second reading of primary rail to injector 1', '');
    expect(segment(store, 's-inj1').secondLengthMm).toBeNull();
  });
  test('a fit gives the status, and taking it away gives the status of how it was read', () => {
    const store = open();
    write('Fit of primary rail to injector 1', '127');
    expect(segment(store, 's-inj1')).toMatchObject({ fittedMm: 127, status: 'fitted', lengthMm: 130 });
    write('Fit of primary rail to injector 1', '');
    expect(segment(store, 's-inj1')).toMatchObject({ fittedMm: null, status: 'roped' });
  });
  test('the status "fitted" takes the length as read, any other takes the fit away', () => {
    const store = open();
    const status = (words: string) => choose('Status of primary rail to injector 1', words);
    status('fitted');
    expect(segment(store, 's-inj1')).toMatchObject({ fittedMm: 130, status: 'fitted' });
    status('rough-cut');
    expect(segment(store, 's-inj1')).toMatchObject({ fittedMm: null, status: 'rough-cut' });
  });
  test('a branch may leave elsewhere, but not from an end or from itself', () => {
    const store = open();
    const places = listOptions('Where injector 1 leaves');
    expect([places.includes('injector 2'), places.includes('injector 1')]).toEqual([false, false]);
    choose('Where injector 1 leaves', store.job.looms.inlet!.nodes.bk3!.name);
    expect(segment(store, 's-inj1')).toMatchObject({ fromNodeId: 'bk3', lengthMm: 130 });
  });
  test('the bore of a hole is known or not', () => {
    const store = open();
    write('Bore of plenum bracket hole', '30');
    expect(store.job.looms.inlet!.nodes.hole!.holeMm).toBe(30);
    write('Bore of plenum bracket hole', '');
    expect(store.job.looms.inlet!.nodes.hole!.holeMm).toBeNull();
  });
  test('a breakout that branches leave is not taken out, a hole is', () => {
    const store = open();
    fireEvent.click(screen.getByRole('button', { name: 'take out plenum bracket hole' }));
    expect(segment(store, 't1')).toMatchObject({ toNodeId: 'bk1', lengthMm: 211 });
    expect(screen.queryByRole('button', { name: 'take out primary rail' })).toBeNull();
  });
});

describe('datum', () => {
  test('clamped, it cannot be moved; unclamped, it says what would change', () => {
    const store = open();
    expect(screen.queryByLabelText('Move the datum by, mm')).toBeNull();
    fireEvent.click(screen.getByRole('button', { name: 'take the clamp off' }));
    expect(store.job.looms.inlet!.clampedBy).toBeNull();
    expect(screen.getByText('29 wires change by it; 1 fitted or rough-cut run at it would count as roped again')).toBeTruthy();
    fireEvent.change(screen.getByLabelText('Move the datum by, mm'), { target: { value: '12' } });
    fireEvent.click(screen.getByRole('button', { name: 'move' }));
    expect(segment(store, 't1')).toMatchObject({ lengthMm: 72, fittedMm: null, status: 'roped' });
    fireEvent.click(screen.getByRole('button', { name: 'it is clamped' }));
    expect(store.job.looms.inlet!.clampedBy).toBe('Imke Dorsey');
  });
  test('a move past the first breakout is refused with what was expected', () => {
    open((job) => {
      job.looms.inlet!.clampedBy = null;
    });
    fireEvent.change(screen.getByLabelText('Move the datum by, mm'), { target: { value: '−90' } });
    fireEvent.click(screen.getByRole('button', { name: 'move' }));
    expect(screen.getByRole('alert').textContent).toContain('the first run is 60 mm');
  });
});
