/** A slider with its name and its value over it; arrow keys move it by a step. */
import { Slider } from "radix-ui";

type SlideProps = {
  label: string;
  value: number;
  shown: string;
  min: number;
  max: number;
  step: number;
  onChange: (value: number) => void;
  spoken?: string;
  figure?: string;
};

export function Slide({ label, value, shown, min, max, step, onChange, spoken = label, figure }: SlideProps) {
  return (
    <div className="min-w-0">
      <p className="label flex justify-between gap-2">
        <span>{label}</span>
        <span className="text-ink" data-figure={figure}>
          {shown}
        </span>
      </p>
      <Slider.Root
        className="relative flex items-center h-7 touch-none select-none"
        value={[value]}
        min={min}
        max={max}
        step={step}
        onValueChange={([next]) => next !== undefined && onChange(next)}
      >
        <Slider.Track className="relative grow h-[3px] bg-hair">
          <Slider.Range className="absolute h-full bg-ink" />
        </Slider.Track>
        <Slider.Thumb
          className="block w-4 h-6 bg-tape border-2 border-ink"
          aria-label={spoken}
          aria-valuetext={shown}
        />
      </Slider.Root>
    </div>
  );
}
