/** A number as it is typed, with a point or a comma; nothing typed is null, anything else no number. */
export const toNumber = (text: string): number | null => (text.trim() === '' ? null : Number(text.replace(',', '.')));
