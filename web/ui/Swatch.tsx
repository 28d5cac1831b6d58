import { toColourWords, WIRE_HEX, type Colour } from 'wattograph-core';

/** A wire's true colours with the words. */
export function Swatch({ colour, words = true }: { colour: Colour; words?: boolean }) {
  return (
    <span style={{ display: 'inline-flex', alignItems: 'center', gap: 6, whiteSpace: 'nowrap' }}>
      <svg width="28" height="10" viewBox="0 0 28 10" aria-hidden="true">
        <rect x="0.5" y="0.5" width="27" height="9" fill={WIRE_HEX[colour.base]} stroke="var(--outline)" />
        {colour.stripe && <rect x="1" y="3.6" width="26" height="2.8" fill={WIRE_HEX[colour.stripe]} />}
        {colour.bands.map((band, at) => (
          <rect key={at} x={3 + at * 6} y="0.5" width="4" height="9" fill={WIRE_HEX[band]} stroke="var(--outline)" strokeWidth="0.5" />
        ))}
      </svg>
      {words && toColourWords(colour)}
    </span>
  );
}
