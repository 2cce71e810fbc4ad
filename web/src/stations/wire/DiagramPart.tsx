/** The wiring diagram as it is made from the job, and its sheets to take along. */
import { useQuery } from "@tanstack/react-query";
import { Group } from "../../fields/Field";
import { useDesk, useFinding, useRevision } from "../../job/JobContext";

const SHEETS = [
  ["wiring.pdf", "Diagram, PDF"],
  ["wiring.svg", "SVG"],
  ["wiring.dxf", "DXF"],
  ["cable-labels.pdf", "Cable labels, PDF"],
] as const;

export function DiagramPart() {
  const { id } = useDesk();
  const revision = useRevision();
  const plugged = useFinding("arrays").some((a) => a.limits.length > 0);
  const { data, error } = useQuery({
    queryKey: ["diagram", id, revision],
    enabled: plugged,
    retry: false,
    queryFn: async () => {
      const answer = await fetch(`/api/jobs/${id}/files/wiring.svg`);
      if (!answer.ok) throw new Error("The diagram cannot be drawn.");
      return answer.text();
    },
  });
  if (!plugged) return <p>Plug panels into strings first, and say under Limits how cold and how hot it gets.</p>;
  return (
    <Group
      title="Diagram"
      aside={
        <span className="flex gap-4 text-[13px]">
          {SHEETS.map(([file, words]) => (
            <a key={file} className="underline" href={`/api/jobs/${id}/files/${file}`} download>
              {words}
            </a>
          ))}
        </span>
      }
    >
      {error && (
        <p role="alert" className="text-signal font-semibold">
          {error.message}
        </p>
      )}
      {data && (
        <img
          className="w-full max-w-[1180px] bg-paper"
          alt="Wiring diagram: panels in their strings, polarity, gauges, lengths, fuses, controllers"
          src={`data:image/svg+xml;utf8,${encodeURIComponent(data)}`}
        />
      )}
    </Group>
  );
}
