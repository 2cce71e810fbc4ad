/** Words of the trade explained where they stand: a small drawing and one line. */
import { Popover } from "radix-ui";
import type { ReactNode } from "react";

export type Word = "datum" | "let-go" | "lever" | "toe" | "gauge zero" | "stand-off" | "pair" | "array";

const INK = "var(--color-ink)";
const CHALK = "var(--color-chalk)";
const line = { stroke: INK, strokeWidth: 1.6, fill: "none" };
const mark = { stroke: CHALK, strokeWidth: 1.6, fill: "none" };

/** An angle bracket between panel frame and roof, seen along the roof. */
const Bracket = ({ children }: { children?: ReactNode }) => (
  <>
    <path d="M10 62 H170" {...line} strokeWidth={3} />
    <path d="M40 14 V56 H120" {...line} strokeWidth={5} />
    <rect x={10} y={10} width={28} height={26} {...line} />
    <circle cx={40} cy={24} r={3} fill={INK} />
    <path d="M88 46 V74" {...line} strokeWidth={4} />
    {children}
  </>
);

const WORDS: Record<Word, { says: string; drawing: ReactNode }> = {
  datum: {
    says: "Where everything is measured from: the roof’s front edge on its centre line. Along is aft, across is to starboard.",
    drawing: (
      <>
        <rect x={20} y={16} width={140} height={48} rx={10} {...line} />
        <path d="M6 40 H172" {...mark} strokeDasharray="10 3 2 3" />
        <circle cx={20} cy={40} r={5} fill={CHALK} />
        <path d="M20 74 H90 m-5 -3 l6 3 l-6 3" {...mark} />
      </>
    ),
  },
  "let-go": {
    says: "The road speed at which the first link of a foot reaches its strength, with no safety left.",
    drawing: (
      <>
        <path d="M10 70 C60 68 90 50 120 14" {...line} />
        <path d="M10 30 H172" {...mark} strokeDasharray="5 3" />
        <circle cx={110} cy={30} r={4} fill={CHALK} />
        <path d="M110 30 V76" {...mark} />
        <text x={114} y={76} className="fill-ink text-[12px]">
          lets go
        </text>
      </>
    ),
  },
  lever: {
    says: "From the frame’s bolt to the line of fasteners in the roof. The longer, the more they are pried.",
    drawing: (
      <Bracket>
        <path d="M40 88 H88 M40 82 V94 M88 82 V94" {...mark} />
      </Bracket>
    ),
  },
  toe: {
    says: "From the line of fasteners to the far edge of the bracket. The bracket turns about that edge.",
    drawing: (
      <Bracket>
        <path d="M88 88 H120 M88 82 V94 M120 82 V94" {...mark} />
      </Bracket>
    ),
  },
  "gauge zero": {
    says: "What the angle gauge shows on something inside that stands for level: the vehicle need not be parked level.",
    drawing: (
      <>
        <path d="M14 70 H166" {...line} transform="rotate(-4 90 70)" strokeWidth={3} />
        <rect x={70} y={44} width={40} height={20} {...line} transform="rotate(-4 90 70)" />
        <path d="M90 70 L150 70" {...mark} strokeDasharray="5 3" />
        <text x={64} y={36} className="fill-ink text-[12px]">
          4.0° here is level
        </text>
      </>
    ),
  },
  "stand-off": {
    says: "From the roof to the underside of the panel’s frame at its feet.",
    drawing: (
      <>
        <path d="M8 74 Q90 58 172 74" {...line} strokeWidth={3} />
        <rect x={30} y={18} width={120} height={14} {...line} />
        <path d="M44 32 V70 M136 32 V70" {...line} strokeWidth={4} />
        <path d="M20 32 V70 M14 32 H26 M14 70 H26" {...mark} />
      </>
    ),
  },
  pair: {
    says: "Two panels whose leads plug into each other: their cable ends have to meet.",
    drawing: (
      <>
        <rect x={14} y={14} width={62} height={50} {...line} />
        <rect x={104} y={14} width={62} height={50} {...line} />
        <path d="M76 34 C86 34 84 46 90 46 C96 46 94 34 104 34" {...mark} />
      </>
    ),
  },
  array: {
    says: "Panels that move together as one, for example on one frame.",
    drawing: (
      <>
        <path d="M8 12 H172 V72 H8 Z" {...mark} strokeDasharray="5 3" />
        <rect x={16} y={20} width={46} height={44} {...line} />
        <rect x={67} y={20} width={46} height={44} {...line} />
        <rect x={118} y={20} width={46} height={44} {...line} />
      </>
    ),
  },
};

export function TradeWord({ word }: { word: Word }) {
  const { says, drawing } = WORDS[word];
  return (
    <Popover.Root>
      <Popover.Trigger
        className="text-chalk font-semibold text-[12.5px] min-w-6 min-h-6 -my-1 leading-none border-b border-dotted border-chalk"
        aria-label={`What ${word} means`}
      >
        ?
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          side="top"
          sideOffset={4}
          className="z-20 w-60 bg-paper border-2 border-ink p-2"
          aria-label={`What ${word} means`}
        >
          <svg viewBox="0 0 180 98" className="w-full h-auto" role="img" aria-label={`Drawing: ${word}`}>
            {drawing}
          </svg>
          <p className="text-[13px] leading-snug">
            <span className="font-semibold">{word}:</span> {says}
          </p>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
