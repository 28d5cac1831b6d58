/** A short mark of a text, the same wherever it is made (FNV-1a, 32 bits): good to tell one text from another, not to keep a secret. */
export function toDigest(text: string): string {
  let hash = 0x811c9dc5;
  for (let at = 0; at < text.length; at += 1) hash = Math.imul(hash ^ text.charCodeAt(at), 0x01000193);
  return (hash >>> 0).toString(16).padStart(8, '0');
}
