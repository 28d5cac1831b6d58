/**
 * Put text on the clipboard. Where the page is served without TLS to another machine, as in many a shop, browsers have no clipboard for
 * scripts: there a copy event takes it, which needs something to be selected.
 */
export function copyText(text: string): void {
  // the type says that it is always there
  const clipboard = navigator.clipboard as Clipboard | undefined;
  if (clipboard) {
    void clipboard.writeText(text);
    return;
  }
  const give = (event: ClipboardEvent) => {
    event.preventDefault();
    event.stopPropagation();
    event.clipboardData?.setData('text/plain', text);
  };
  document.addEventListener('copy', give, { capture: true, once: true });
  getSelection()?.selectAllChildren(document.body);
  document.execCommand('copy');
  getSelection()?.removeAllRanges();
  document.removeEventListener('copy', give, { capture: true });
}
