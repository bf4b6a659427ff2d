/** Lets the person choose a file. Undefined when none was chosen. */
export function chooseFile(accept: string): Promise<File | undefined> {
  return new Promise((resolve) => {
    const input = document.createElement('input');
    input.type = 'file';
    input.accept = accept;
    input.addEventListener('change', () => resolve(input.files?.[0]));
    input.addEventListener('cancel', () => resolve(undefined));
    input.click();
  });
}

/** Lets the person choose a text file. Undefined when nothing was chosen. */
export const pickFile = async (accept: string): Promise<string | undefined> => {
  const file = await chooseFile(accept);
  return file?.text().catch(() => undefined);
};
