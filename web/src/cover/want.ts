/** One line of the question as typed. */
export interface Want {
  readonly itemId: number;
  readonly quantity: string;
}

/** The question in the address, like "12x24,15x10": item × quantity. */
export const wantsOf = (text: string): Want[] =>
  text.split(',').flatMap((part) => {
    const match = /^(\d+)x(.*)$/.exec(part);
    return match ? [{ itemId: Number(match[1]), quantity: match[2] ?? '' }] : [];
  });

export const wantText = (wants: readonly Want[]) =>
  wants.map(({ itemId, quantity }) => `${itemId}x${quantity.replaceAll(',', '')}`).join(',');
