/** Hand a text to the reader as a file. */
export const saveFile = (name: string, text: string, type = 'text/csv'): void => saveBlob(name, new Blob([text], { type }));

/** Hand a file to the reader. */
export function saveBlob(name: string, blob: Blob): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(blob);
  link.download = name;
  link.click();
  URL.revokeObjectURL(link.href);
}
