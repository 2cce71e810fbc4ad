/** The order in which carriers are put together, at the bench and on the roof. */
import { Group } from "../../fields/Field";
import { useFinding } from "../../job/JobContext";
import { NoPieces } from "./NoPieces";

export function TogetherPart() {
  const steps = useFinding("assembly");
  if (!steps.length) return <NoPieces />;
  return (
    <>
      {(["bench", "roof"] as const).map((place) => {
        const here = steps.filter((s) => s.on_roof === (place === "roof"));
        return (
          <Group
            key={place}
            title={place === "bench" ? "At the bench" : "On the roof"}
            aside={
              place === "roof" ? (
                <span className="text-[13px]">they come again under Roof day, among the rest</span>
              ) : null
            }
          >
            <ol className="max-w-[900px]">
              {here.map((step, i) => (
                <li
                  key={`${step.carrier} ${step.number}`}
                  className="grid grid-cols-[2.2rem_minmax(0,1fr)] border-b border-hair py-1.5"
                >
                  <span className="font-sign font-semibold text-[19px] leading-6 text-chalk">{i + 1}</span>
                  <span>
                    <span className="font-semibold">{step.title}</span>
                    <br />
                    {step.detail}
                    <br />
                    <span className="text-[13.5px]">Right when: {step.check}</span>
                    {step.wait_h > 0 && (
                      <span className="font-semibold text-[13.5px]">
                        {" "}
                        Then wait {Math.round(step.wait_h / 24)} days.
                      </span>
                    )}
                  </span>
                </li>
              ))}
            </ol>
          </Group>
        );
      })}
    </>
  );
}
