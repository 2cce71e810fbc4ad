/** The one cursor of the three views: pointing at x in one marks it in the others. The last place is kept. */
import { shared } from "../ui/shared";
import type { Mm } from "./geometry";

export type Cursor = { x: Mm; y: Mm; inside: boolean };

const cursor = shared<Cursor | null>(null);

export function pointAt(next: Cursor | null): void {
  const last = cursor.get();
  cursor.set(next ?? (last && { ...last, inside: false }));
}

export const forgetCursor = (): void => cursor.set(null);
export const useCursor = cursor.use;
