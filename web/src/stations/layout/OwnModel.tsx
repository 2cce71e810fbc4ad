/** A panel of one's own: typed from its data sheet, kept in the job. */
import { type FormEvent, useState } from "react";
import { ApiError } from "../../api/client";
import { useDesk } from "../../job/JobContext";

const FIELDS = [
  ["name", "Name", "what you call it"],
  ["length", "Length", "1755 mm"],
  ["width", "Width", "1038 mm"],
  ["frame_height", "Frame height", "35 mm"],
  ["mass", "Mass", "19.5 kg"],
  ["power", "Power", "370 W"],
] as const;

export function OwnModel() {
  const { handle } = useDesk();
  const [open, setOpen] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const add = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = event.currentTarget;
    const typed = new FormData(form);
    try {
      const value = Object.fromEntries(FIELDS.map(([key]) => [key, String(typed.get(key))]));
      await handle.edit([{ op: "add", path: "own_models", value }]);
      setOpen(false);
      setProblem(null);
    } catch (failure) {
      setProblem(
        failure instanceof ApiError ? `${failure.body.field.split(".").at(-1)}: ${failure.message}` : "Not saved.",
      );
    }
  };
  if (!open)
    return (
      <button type="button" className="act" onClick={() => setOpen(true)}>
        Own panel …
      </button>
    );
  return (
    <form onSubmit={(event) => void add(event)} className="grid grid-cols-2 sm:grid-cols-3 gap-x-3 gap-y-1.5 pt-1">
      {FIELDS.map(([key, label, example]) => (
        <label key={key} className="label">
          {label}
          <input name={key} required className="box font-sans text-ink" placeholder={example} autoComplete="off" />
        </label>
      ))}
      <span className="flex gap-2 col-span-full">
        <button type="submit" className="act">
          Keep this panel
        </button>
        <button type="button" className="act plain" onClick={() => setOpen(false)}>
          Cancel
        </button>
      </span>
      {problem && (
        <p role="alert" className="col-span-full text-signal font-semibold text-[13px]">
          {problem}
        </p>
      )}
    </form>
  );
}
