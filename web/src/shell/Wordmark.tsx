export function Wordmark() {
  return (
    <span className="inline-flex items-center gap-2">
      <svg
        width="26"
        height="18"
        viewBox="0 0 26 18"
        aria-hidden="true"
        fill="none"
        stroke="currentColor"
        strokeWidth="2.4"
      >
        <path d="M1 4h14M5 9h18M1 14h11" />
      </svg>
      <span className="font-sign font-semibold text-[22px] tracking-wide">Fahrtwind</span>
    </span>
  );
}
