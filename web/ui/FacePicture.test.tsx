import { render, screen } from '@testing-library/react';
import { CATALOGUE } from 'wattograph-core';
import { FacePicture } from './FacePicture';
import { ProblemList } from './findings/ProblemList';

const family = CATALOGUE.families['tarn-3']!;
const xOf = (side: 'wire' | 'mating', cavity: string) => {
  const { container, unmount } = render(<FacePicture family={family} side={side} colourAt={() => null} />);
  const x = Number([...container.querySelectorAll('text')].find((text) => text.textContent === cavity)!.getAttribute('x'));
  unmount();
  return x;
};

test('cavity 1 is on the left from the wire side and on the right from the mating side', () => {
  expect(xOf('wire', '1')).toBeLessThan(xOf('wire', '3'));
  expect(xOf('mating', '1')).toBeGreaterThan(xOf('mating', '3'));
});

test('the picture says which side it shows, and empty cavities are dashed', () => {
  const { container } = render(
    <FacePicture
      family={family}
      side="mating"
      colourAt={(cavity) => (cavity === '2' ? { base: 'red', stripe: 'white', bands: [] } : null)}
    />,
  );
  expect(screen.getByRole('img', { name: 'Tarn 3, mating side' })).toBeTruthy();
  expect([...container.querySelectorAll('circle[stroke-dasharray]')]).toHaveLength(2);
});

test('problems are listed with their place', () => {
  render(<ProblemList title="not read" problems={[{ path: 'line 3', message: 'expected 7 fields, got 6' }]} />);
  expect(screen.getByRole('alert').textContent).toContain('line 3: expected 7 fields, got 6');
});
