const KEY = 'wattograph.device';
const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/;

let made: string | null = null;

/** A name of this device, the same in all its tabs for as long as its browser keeps it. */
export function readDevice(): string {
  try {
    const known = localStorage.getItem(KEY);
    if (known && UUID.test(known)) return known;
    const id = made ?? crypto.randomUUID();
    made = id;
    localStorage.setItem(KEY, id);
    return id;
  } catch {
    // a browser that keeps nothing: this page is a device of its own
    return (made ??= crypto.randomUUID());
  }
}
