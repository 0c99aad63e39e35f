/** Hands a file to the browser to keep. */
export function download(blob: Blob, name: string): void {
  const address = URL.createObjectURL(blob);
  const link = document.createElement('a');
  link.href = address;
  link.download = name;
  link.click();
  // Some browsers begin to read it only after the click is over.
  setTimeout(() => URL.revokeObjectURL(address), 60_000);
}
