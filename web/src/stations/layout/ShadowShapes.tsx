/** Where the shadows lie at the moment that is looked at under Sun and shade; over the panels, for it is they that lose. */
import type { LayerProps } from "../../roof/layer";
import { shadowsLookedAt } from "../../roof/shadows";

const px = (pixels: number): string => pixels.toFixed(1);

export function ShadowShapes({ scale }: LayerProps) {
  const moment = shadowsLookedAt.use();
  if (!moment) return null;
  return (
    <g pointerEvents="none" aria-hidden="true" opacity={0.36}>
      {moment.shadows.map((shadow) => (
        <path
          key={shadow.panel}
          data-shadow={shadow.panel || "roof"}
          d={shadow.rings
            .map((ring) => `M${ring.map((v) => `${px(scale.x(v.x_mm))} ${px(scale.y(v.y_mm))}`).join("L")}Z`)
            .join("")}
          fill="var(--color-ink)"
          fillRule="evenodd"
        />
      ))}
    </g>
  );
}
