import type { Station } from "../station";

export const log: Station = {
  name: "log",
  title: "Log",
  question: "What was done, is it still tight?",
  later:
    "Will keep the record: as-built positions, torque, batches, inspections and the handover sheet. Not built yet; what is ticked on Roof day is kept.",
};
