/** What this station still asks, each question leading to the box that answers it, in whichever part it stands. */
import type { StationName } from "../api/types";
import { useDesk, useFinding } from "../job/JobContext";

export function OpenQuestions({ station }: { station: StationName }) {
  const { go } = useDesk();
  const questions = useFinding("questions");
  const asked = questions.filter((q) => q.station === station);
  if (!asked.length) return null;
  return (
    <ul className="border-l-4 border-tape bg-tape/20 pl-2 my-1" aria-label="Still to answer">
      {asked.map((question) => (
        <li key={question.path}>
          <button type="button" className="text-left hover:underline" onClick={() => go(station, question.path)}>
            {question.ask}
          </button>
        </li>
      ))}
    </ul>
  );
}

/** Put the cursor into the box of a path, where the page shows one. */
export function focusBox(path: string): void {
  document.querySelector<HTMLElement>(`[data-path="${CSS.escape(path)}"]`)?.focus();
}
