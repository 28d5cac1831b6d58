/** "1 wire", "12 wires". plural: of a word that does not take an s. */
export const toCount = (count: number, one: string, plural = `${one}s`): string => `${count} ${count === 1 ? one : plural}`;
