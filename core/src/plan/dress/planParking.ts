import type { Parking } from './dressTypes';

/** What slides on one leg before its end is made. */
export interface ParkedLeg {
  /** of the leg itself, mm */
  legMm: number;
  /** wire behind it that is still loose, mm */
  looseMm: number;
  /** the covering of the leg; null: bare, or it goes on from the side */
  sleeve: { name: string; pushedMm: number; isOverEnd: boolean } | null;
  /** boot, build-up and label */
  pieces: readonly { name: string; lengthMm: number }[];
  stripRoomMm: number;
}

/**
 * Whether what slides on a leg has room to stand back while its end is made (craft A3): the lengths of all of it and room to strip must not
 * be more than the leg and the wire behind it that is still loose; where the sleeve of the leg has no room, the leg is covered first and the
 * rest stands on it.
 */
export function planParking({ legMm, looseMm, sleeve, pieces, stripRoomMm }: ParkedLeg): Parking {
  const roomMm = legMm + looseMm;
  const park = (all: Parking['pieces']) => {
    const needMm = all.reduce((sum, { lengthMm }) => sum + lengthMm, 0) + (all.length > 0 ? stripRoomMm : 0);
    return { pieces: all, needMm, roomMm, fits: needMm <= roomMm };
  };
  const small = park([...pieces]);
  const toStrip = stripRoomMm > 0 ? ' with room to strip' : '';
  const words = (parked: typeof small) =>
    parked.fits
      ? `${Math.ceil(parked.needMm)} mm${toStrip}, on ${Math.floor(legMm)} mm of ${stripRoomMm > 0 ? 'leg' : 'the run before'}${parked.needMm > legMm ? ` and ${Math.floor(looseMm)} mm of loose wire behind it` : ''}`
      : `no room to stand back: ${Math.ceil(parked.needMm)} mm${toStrip}, there are ${Math.floor(roomMm)}`;
  if (sleeve?.isOverEnd)
    return {
      ...small,
      order: 'after-end',
      because: `the sleeve goes on over the made end${pieces.length > 0 ? `; the rest ${words(small)}` : ''}`,
    };
  if (sleeve === null)
    return pieces.length === 0
      ? { ...small, order: 'none', because: 'nothing slides on' }
      : { ...small, order: 'push-back', because: words(small) };
  const all = park([{ name: sleeve.name, lengthMm: sleeve.pushedMm }, ...pieces]);
  if (all.fits) return { ...all, order: 'push-back', because: words(all) };
  return {
    ...small,
    order: 'cover-first',
    because: `its sleeve too would need ${Math.ceil(all.needMm)} of ${Math.floor(roomMm)} mm: the leg is covered before its end is made${pieces.length > 0 ? `; the rest ${words(small)}` : ''}`,
  };
}
