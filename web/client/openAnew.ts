/** Open this page anew, with what the server holds now. */
export const openAnew = (): void => location.reload();
