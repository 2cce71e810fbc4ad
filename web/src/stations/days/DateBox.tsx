/** A day of the job, as the browser lets one pick it. */
import { useId } from "react";
import { useDesk } from "../../job/JobContext";

export function DateBox({ label, path, value }: { label: string; path: string; value: string | null }) {
  const { handle } = useDesk();
  const box = useId();
  return (
    <div>
      <label className="label block" htmlFor={box}>
        {label}
      </label>
      <input
        id={box}
        type="date"
        className="box text-ink font-sans"
        data-path={path}
        value={value ?? ""}
        onChange={(event) => {
          if (event.target.value) handle.change([{ op: "set", path, value: event.target.value }]);
        }}
      />
    </div>
  );
}
