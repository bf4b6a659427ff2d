/** The number in what was typed, with comma or point; none where it is not one. */
export const numberIn = (typed: string): number | undefined => {
  const number = Number(typed.replace(',', '.'));
  return typed.trim() !== '' && Number.isFinite(number) ? number : undefined;
};
