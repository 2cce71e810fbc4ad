/** State never by colour alone: filled disc holds, half disc thin margin, open ring with a bar lets go, crossed square refused by a stop. */
export type FootState = "holds" | "thin" | "lets go" | "refused" | "unknown";

export function stateWords(state: FootState): string {
  return {
    holds: "holds",
    thin: "thin margin",
    "lets go": "lets go",
    refused: "refused by a stop",
    unknown: "not known yet",
  }[state];
}

/** Drawn about (0, 0); the caller places it. */
export function StateShape({ state, r }: { state: FootState; r: number }) {
  if (state === "holds") return <circle r={r} fill="var(--color-ink)" />;
  if (state === "thin")
    return (
      <g>
        <circle r={r} fill="var(--color-paper)" stroke="var(--color-ink)" strokeWidth={1.6} />
        <path d={`M0 ${-r} A ${r} ${r} 0 0 0 0 ${r} Z`} fill="var(--color-ink)" />
      </g>
    );
  if (state === "lets go")
    return (
      <g stroke="var(--color-signal)" strokeWidth={2.2} fill="var(--color-paper)">
        <circle r={r} />
        <line x1={-r * 1.5} y1={r * 1.5} x2={r * 1.5} y2={-r * 1.5} />
      </g>
    );
  if (state === "refused")
    return (
      <g stroke="var(--color-signal)" strokeWidth={2.2} fill="var(--color-paper)">
        <rect x={-r} y={-r} width={2 * r} height={2 * r} />
        <path d={`M${-r} ${-r} L${r} ${r} M${-r} ${r} L${r} ${-r}`} />
      </g>
    );
  return <circle r={r} fill="var(--color-paper)" stroke="var(--color-ink)" strokeWidth={1.2} strokeDasharray="2 2" />;
}

export function StateMark({ state }: { state: FootState }) {
  return (
    <svg width="18" height="18" viewBox="-9 -9 18 18" aria-hidden="true" className="inline-block shrink-0">
      <StateShape state={state} r={5} />
    </svg>
  );
}

/** The word of the whole roof as the same marks. */
export function VerdictMark({ word }: { word: "holds" | "thin" | "refused" | "not known" }) {
  return (
    <svg width="24" height="24" viewBox="-12 -12 24 24" aria-hidden="true" className="inline-block shrink-0">
      <StateShape state={word === "not known" ? "unknown" : word} r={8} />
    </svg>
  );
}
