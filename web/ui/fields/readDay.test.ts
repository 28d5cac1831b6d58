import { readDay, writeDay } from './readDay';

test.each([
  ['24/12/2026', 'en-GB'],
  ['24.12.2026', 'de-DE'],
  ['24. Dez. 2026', 'de-DE'],
  ['12/24/2026', 'en-US'],
  ['Dec 24, 2026', 'en-US'],
  ['24 december 2026', 'en-GB'],
  ['2026-12-24', 'en-GB'],
  ['2026-12-24', 'sv-SE'],
  ['2026/12/24', 'en-US'],
])('%s as a reader of %s types it', (text, locale) => {
  expect(readDay(text, locale)).toBe('2026-12-24');
});

test.each(['', '24', '24/12', '24/12/26', '24/12/202', '31/02/2026', '24/13/2026', '24 xyz 2026', '2026 2026 2026', 'tomorrow'])(
  '%p is no day (yet)',
  (text) => {
    expect(readDay(text, 'en-GB')).toBeNull();
  },
);

test('what is written is read again, whatever the language', () => {
  for (const locale of ['en-GB', 'en-US', 'de-DE', 'fr-FR', 'sv-SE', 'es-ES'])
    for (let month = 1; month <= 12; month += 1) {
      const day = `2026-${String(month).padStart(2, '0')}-09`;
      expect({ locale, day: readDay(writeDay(day, locale), locale) }).toEqual({ locale, day });
    }
});
