/** When it can be done: the plan on its road of days, the weather, the people, what helps, how sure it is. */
import { usePart } from "../../fields/usePart";
import { useDesk, useFinding, useStoredJob } from "../../job/JobContext";
import { type PartInfo, Parts } from "../../ui/Parts";
import { HelpsPart } from "./HelpsPart";
import { PeoplePart } from "./PeoplePart";
import { PlanPart } from "./PlanPart";
import { SurePart } from "./SurePart";
import { WeatherPart } from "./WeatherPart";
import { WorkPart } from "./WorkPart";
import { YardPart } from "./YardPart";

const LED_TO: readonly (readonly [string, string])[] = [
  ["days.first", "people"],
  ["days.zone", "people"],
  ["days.crew", "people"],
  ["days.deliveries", "people"],
  ["days.weather", "weather"],
  ["days.spells", "weather"],
  ["days.forecast", "weather"],
  ["site.", "weather"],
  ["days.orders", "work"],
  ["days.rates", "work"],
  ["days.", "plan"],
];

const partOf = (path: string | null) => LED_TO.find(([start]) => path?.startsWith(start))?.[1] ?? null;

export function DaysStation() {
  const { ledTo } = useDesk();
  const job = useStoredJob();
  const kept = useFinding("kept");
  const [part, setPart] = usePart("days", "plan", partOf(ledTo));
  if (!job.panels.length) return <p>Place a panel first, under Layout.</p>;
  const parts: PartInfo[] = [
    { name: "plan", title: "Plan", mark: kept?.breaks.length ? `${kept.breaks.length}!` : undefined, body: PlanPart },
    { name: "people", title: "People and days", mark: String(job.days.crew.length || ""), body: PeoplePart },
    { name: "yard", title: "Other vehicles", body: YardPart },
    { name: "weather", title: "Weather", body: WeatherPart },
    { name: "helps", title: "What helps", body: HelpsPart },
    { name: "sure", title: "How sure", body: SurePart },
    { name: "work", title: "Work", body: WorkPart },
  ];
  return <Parts parts={parts} current={part} choose={setPart} />;
}
