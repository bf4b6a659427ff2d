/** Hands a text to the person as a file. */
export function saveFile(name: string, type: string, text: string): void {
  const url = URL.createObjectURL(new Blob([text], { type: `${type};charset=utf-8` }));
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  URL.revokeObjectURL(url);
}

/** Opens what the server makes, in a view of its own. */
export function openFile(address: string): void {
  window.open(address, '_blank', 'noopener');
}
