/** Lets the person choose a text file. Undefined when nothing was chosen. */
export function pickFile(accept: string): Promise<string | undefined> {
  return new Promise((resolve) => {
    const input = document.createElement('input');
    input.type = 'file';
    input.accept = accept;
    input.addEventListener('change', () => {
      const file = input.files?.[0];
      if (file) void file.text().then(resolve, () => resolve(undefined));
      else resolve(undefined);
    });
    input.addEventListener('cancel', () => resolve(undefined));
    input.click();
  });
}
