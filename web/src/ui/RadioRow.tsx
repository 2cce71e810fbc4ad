/** A few choices side by side: one tab stop, arrows choose, as radios do everywhere. */
import type { KeyboardEvent, ReactNode } from "react";

type Option<T extends string> = readonly [value: T, title: string, key?: string | undefined, words?: ReactNode];

export function RadioRow<T extends string>({
  label,
  value,
  options,
  choose,
  className = "flex flex-wrap gap-1",
  optionClass = "",
}: {
  label: string;
  value: T;
  options: readonly Option<T>[];
  choose: (value: T) => void;
  className?: string;
  optionClass?: string;
}) {
  const keys = (event: KeyboardEvent<HTMLButtonElement>, index: number) => {
    const step = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[event.key];
    if (!step) return;
    event.preventDefault();
    const next = options[(index + step + options.length) % options.length];
    if (!next) return;
    choose(next[0]);
    event.currentTarget.parentElement?.querySelector<HTMLElement>(`[data-value="${next[0]}"]`)?.focus();
  };
  return (
    <div role="radiogroup" aria-label={label} className={className}>
      {options.map(([name, title, key, words], index) => (
        <button
          key={name}
          type="button"
          role="radio"
          aria-checked={value === name}
          data-on={value === name}
          data-value={name}
          tabIndex={value === name ? 0 : -1}
          className={`act ${optionClass}`}
          onClick={() => choose(name)}
          onKeyDown={(event) => keys(event, index)}
        >
          {title}
          {key && <kbd className="font-sans text-[11px] font-normal border border-current px-1">{key}</kbd>}
          {words}
        </button>
      ))}
    </div>
  );
}
