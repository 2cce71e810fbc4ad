/** The parts of a station as a row of tabs; a part with something open or wrong carries a mark. */
import { Tabs } from "radix-ui";
import type { ReactNode } from "react";

export type PartInfo = { name: string; title: string; mark?: string | undefined; body: () => ReactNode };

export function Parts({
  parts,
  current,
  choose,
}: {
  parts: readonly PartInfo[];
  current: string;
  choose: (name: string) => void;
}) {
  return (
    <Tabs.Root value={current} onValueChange={choose} className="min-w-0">
      <Tabs.List aria-label="Parts of this station" className="flex flex-wrap gap-x-1 border-b border-ink mb-2">
        {parts.map((part) => (
          <Tabs.Trigger
            key={part.name}
            value={part.name}
            className="font-sign font-semibold text-[15.5px] px-2.5 h-8 text-soft border-x border-t border-transparent data-[state=active]:text-ink data-[state=active]:bg-paper data-[state=active]:border-ink data-[state=active]:-mb-px hover:text-ink"
          >
            {part.title}
            {part.mark && <span className="ml-1 text-[12.5px] text-chalk">{part.mark}</span>}
          </Tabs.Trigger>
        ))}
      </Tabs.List>
      {parts.map((part) => (
        <Tabs.Content
          key={part.name}
          value={part.name}
          tabIndex={-1}
          className="outline-none relative max-md:overflow-x-auto"
        >
          {part.name === current && <part.body />}
        </Tabs.Content>
      ))}
    </Tabs.Root>
  );
}
