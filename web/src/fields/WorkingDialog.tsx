/** The working of a number: formula, inputs with origin, result, validity, source. Prints on its own. */
import { useQuery } from "@tanstack/react-query";
import { Dialog } from "radix-ui";
import { http, unwrap } from "../api/client";
import type { Step } from "../api/types";
import { useDesk, useRevision, useUnits } from "../job/JobContext";
import { alsoIn } from "../ui/format";

const number = (value: number): string => {
  if (value === 0) return "0";
  const size = Math.abs(value);
  return size >= 1e6 || size < 1e-3 ? value.toExponential(3) : Number(value.toPrecision(5)).toString();
};

export function WorkingDialog({ place, title, close }: { place: string | null; title: string; close: () => void }) {
  const { id, handle } = useDesk();
  const revision = useRevision();
  const query = useQuery({
    queryKey: ["working", id, revision, place, handle.probe],
    enabled: place !== null,
    retry: false,
    queryFn: () =>
      unwrap(
        http.GET("/api/jobs/{job_id}/working", {
          params: {
            path: { job_id: id },
            query: handle.probe === null ? { place: place ?? "" } : { place: place ?? "", probe_m_s: handle.probe },
          },
        }),
      ),
  });
  return (
    <Dialog.Root open={place !== null} onOpenChange={(open) => !open && close()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 bg-ink/40 no-print" />
        <Dialog.Content
          data-printing
          aria-describedby={undefined}
          className="fixed right-0 top-0 h-full w-[min(620px,100vw)] overflow-y-auto bg-paper px-6 py-4 border-l-2 border-ink print:static print:w-full print:border-0"
        >
          <div className="flex items-baseline justify-between gap-4 border-b-2 border-ink pb-1">
            <Dialog.Title className="text-[22px]">Working: {title}</Dialog.Title>
            <span className="flex gap-2 no-print">
              <button type="button" className="act plain" onClick={() => window.print()}>
                Print
              </button>
              <Dialog.Close className="act">Close</Dialog.Close>
            </span>
          </div>
          {query.isPending && <p className="py-4">Working it out …</p>}
          {query.error && <p className="py-4 text-signal font-semibold">{query.error.message}</p>}
          {query.data?.steps.map((step) => (
            <StepView
              key={`${step.place}${step.formula}${step.result}${step.inputs.map((i) => i.value).join()}`}
              step={step}
            />
          ))}
          {query.data && <p className="pt-3 text-soft">{query.data.caution}</p>}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

function StepView({ step }: { step: Step }) {
  const units = useUnits();
  const told = alsoIn(step.result, step.unit, units);
  return (
    <section className="py-2.5 border-b border-hair break-inside-avoid">
      <div className="flex items-baseline justify-between gap-4">
        <h3 className="text-[16px]">
          {step.title}
          <span className="text-soft font-medium">{aspect(step.place)}</span>
        </h3>
        <p className="font-sign font-semibold text-[19px] whitespace-nowrap">
          <Symbols text={step.symbol} /> = {number(step.result)} {step.unit}
          {told && <span className="text-soft text-[15px]"> ({told})</span>}
        </p>
      </div>
      <p className="text-chalk">
        <Symbols text={step.expression} />
      </p>
      <table className="w-full mt-1">
        <tbody>
          {step.inputs.map((input) => (
            <tr key={input.symbol} className="align-top">
              <td className="pr-2 whitespace-nowrap">
                <Symbols text={input.symbol} />
              </td>
              <td className="pr-2 whitespace-nowrap num">{number(input.value)}</td>
              <td className="pr-3 whitespace-nowrap">
                {input.unit}
                {alsoIn(input.value, input.unit, units) && (
                  <span className="text-soft"> ({alsoIn(input.value, input.unit, units)})</span>
                )}
              </td>
              <td className="pr-3">{input.words}</td>
              <td className="text-soft w-1/2">
                {input.origin.kind}: {input.origin.place}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="text-[12.5px] text-soft pt-1">
        Valid: {step.validity}. Source{step.confidence === "published" ? "" : ` (${step.confidence})`}: {step.source}.
      </p>
    </section>
  );
}

/** Which direction a step is about, from the last word of its place. */
function aspect(place: string): string {
  const last = place.split("/").at(-1);
  return last === "pull" ? ", in pull" : last === "along" ? ", along the roof" : "";
}

/** Symbols with what stands behind the underscore set low. */
function Symbols({ text }: { text: string }) {
  return text.split(/(_[\p{L}\p{Nd}*]+)/u).map((part, index) =>
    // biome-ignore lint/suspicious/noArrayIndexKey: the parts of one fixed text never change places
    part.startsWith("_") ? <sub key={index}>{part.slice(1)}</sub> : <span key={index}>{part}</span>,
  );
}

/** A number that opens its working. */
export function Worked({ place, title, children }: { place: string; title: string; children: React.ReactNode }) {
  const { openWorking } = useDesk();
  return (
    <button
      type="button"
      className="underline decoration-dotted decoration-1 underline-offset-[3px] hover:decoration-solid text-left"
      onClick={() => openWorking(place, title)}
      aria-label={`${title}: show the working`}
    >
      {children}
    </button>
  );
}
