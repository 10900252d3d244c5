/**
 * The path by which `itemId` would contain itself, from it back to it, or null when there is none.
 * @param componentsOf the items a definition is made of; empty for bought parts
 */
export function findCycle<T>(itemId: T, componentsOf: (itemId: T) => readonly T[]): T[] | null {
  const cleared = new Set<T>();
  // An explicit stack: a long chain of definitions must not exhaust the call stack.
  const path: { id: T; rest: T[] }[] = [{ id: itemId, rest: [...componentsOf(itemId)] }];
  for (let top = path.at(-1); top; top = path.at(-1)) {
    const next = top.rest.shift();
    if (next === undefined) {
      cleared.add(top.id);
      path.pop();
    } else if (next === itemId) {
      return [...path.map((step) => step.id), itemId];
    } else if (!cleared.has(next) && !path.some((step) => step.id === next)) {
      path.push({ id: next, rest: [...componentsOf(next)] });
    }
  }
  return null;
}
