import type { Findings } from "../../api/types";
import { Group } from "../../fields/Field";
import { Worked } from "../../fields/WorkingDialog";
import { useFinding, useUnits } from "../../job/JobContext";
import { length, likely, percent } from "../../ui/format";

function Others({ others }: { others: Findings["members"]["alternatives"] }) {
  const units = useUnits();
  return others.map((other) => (
    <p key={`${other.story} ${other.pitch_mm} ${other.first_mm}`}>
      Or every {length(other.pitch_mm, units)}
      {other.story === "one spacing" ? "" : `, ${other.story}`}: {percent(other.probability)} likely.
    </p>
  ));
}

export function Fit() {
  const members = useFinding("members");
  const units = useUnits();
  const fit = members;
  if (fit.status === "not known" || fit.pitch_mm === null || fit.pitch_mm === undefined)
    return (
      <Group title="Members">
        <p className="font-sign font-semibold text-[24px]">Not known yet</p>
        <p>
          {fit.reason} {fit.remedy}
        </p>
        <Others others={fit.alternatives} />
      </Group>
    );
  return (
    <Group
      title="Members"
      aside={<span className={fit.status === "settled" ? "text-soft" : "text-signal font-semibold"}>{fit.status}</span>}
    >
      {fit.sections.map((section) => (
        <p key={section.number} className="font-sign font-semibold text-[26px] leading-8">
          every {length(section.pitch_mm, units)}{" "}
          <span className="text-[17px] text-soft">
            ± {length(1.96 * section.pitch_sigma_mm, units)}
            {fit.sections.length > 1 ? `, members ${section.first_member} to ${section.last_member}` : ""}
          </span>
        </p>
      ))}
      <p className="text-soft">
        {likely(fit.probability)} likely{fit.story === "one spacing" ? "" : `; ${fit.story}`}. Where a member shows per
        cent, that is the chance that it stands within 15 mm of there; the others are surer than 99 %.
      </p>
      {fit.reason && (
        <p className="text-signal font-semibold">
          {fit.reason} {fit.remedy}
        </p>
      )}
      <Others others={fit.alternatives} />
      <ul className="flex flex-wrap gap-x-4 gap-y-0.5 pt-1">
        {fit.members.map((member) => (
          <li key={member.number} className="whitespace-nowrap">
            <span className="text-chalk font-semibold">{member.number}</span>{" "}
            <Worked place={`structure/member ${member.number}`} title={`member ${member.number}`}>
              {length(member.x_mm, units)}
            </Worked>{" "}
            <span className="text-soft">
              ± {length(1.96 * member.sigma_mm, units)}
              {member.confidence < 0.99 ? `, ${percent(member.confidence)}` : ""}
              {member.status === "read"
                ? ""
                : member.status === "drawn"
                  ? ", from the drawing, not read"
                  : ", not read"}
            </span>
          </li>
        ))}
      </ul>
    </Group>
  );
}
