/** Whether an element has come into sight; once seen it stays seen. */
import { type RefObject, useEffect, useState } from "react";

export function useSeen(ref: RefObject<Element | null>): boolean {
  const [seen, setSeen] = useState(false);
  useEffect(() => {
    const element = ref.current;
    if (seen || element === null) return;
    const watch = new IntersectionObserver((entries) => setSeen(entries.some((e) => e.isIntersecting)));
    watch.observe(element);
    return () => watch.disconnect();
  }, [ref, seen]);
  return seen;
}
