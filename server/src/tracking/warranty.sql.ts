/**
 * The months of warranty that an item's own field says, like "warranty months"; `item` is an expression of the item's id.
 * Of several the first by name.
 */
export const warrantyOf = (item: string) =>
  `(SELECT value FROM item_field WHERE item_id = ${item} AND name LIKE '%warranty%' ORDER BY name LIMIT 1)`;
