/** The paper that goes with the vehicle. */
import { Group } from "../../fields/Field";
import { useDesk, usePartOf } from "../../job/JobContext";

export function HandoverPart() {
  const { id } = useDesk();
  const word = usePartOf((shown) => shown.evaluation.spoken.word);
  return (
    <Group title="Handover sheet">
      <p className="max-w-[80ch] pb-2">
        What is on the roof, mass and height, the highest speed and why, wiring and fuses, how to stow it, what to look
        at and when; a second page for the insurer and the next owner. It says now: <b>{word}</b>.
      </p>
      <a className="act" href={`/api/jobs/${id}/files/handover.pdf`} download>
        Handover sheet, PDF
      </a>{" "}
      <a className="act" href={`/api/jobs/${id}/files/due.ics`} download>
        What is due, for a calendar
      </a>{" "}
      <a className="act" href={`/api/jobs/${id}/log`} download="record.json">
        The whole record, JSON
      </a>
    </Group>
  );
}
