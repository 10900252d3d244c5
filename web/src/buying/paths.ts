/** The address of the buy list for so much of each item. */
export const buyPath = (needs: readonly { readonly itemId: number; readonly quantity: string }[]): string =>
  `/buying?need=${needs.map(({ itemId, quantity }) => `${itemId}x${quantity}`).join(',')}`;
