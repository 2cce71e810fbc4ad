/** Try something that the server may refuse, and say why it did. */
import { type ReactNode, useCallback, useState } from "react";

export function useTry(): [(work: () => Promise<void>) => Promise<boolean>, ReactNode] {
  const [problem, setProblem] = useState<string | null>(null);
  const attempt = useCallback(async (work: () => Promise<void>) => {
    try {
      await work();
      setProblem(null);
      return true;
    } catch (failure) {
      setProblem(failure instanceof Error ? failure.message : "Not saved.");
      return false;
    }
  }, []);
  const told = problem && (
    <p role="alert" className="text-signal font-semibold text-[13px] pt-1">
      {problem}
    </p>
  );
  return [attempt, told];
}
