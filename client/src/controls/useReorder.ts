import { useDragAndDrop } from "react-aria-components";

/** Lets the rows of a list be moved by dragging, or by keys from their grip. */
export function useReorder(ids: string[], onOrder: (ids: string[]) => void) {
  return useDragAndDrop({
    getItems: (keys) => [...keys].map((key) => ({ "text/plain": String(key) })),
    onReorder: (e) => {
      const moved = ids.filter((id) => e.keys.has(id));
      const rest = ids.filter((id) => !e.keys.has(id));
      const at = rest.indexOf(String(e.target.key)) + (e.target.dropPosition === "after" ? 1 : 0);
      onOrder([...rest.slice(0, at), ...moved, ...rest.slice(at)]);
    },
  }).dragAndDropHooks;
}
