import type { Station } from "../station";
import { LogStation } from "./LogStation";
import { PhoneLog } from "./PhoneLog";

export const log: Station = {
  name: "log",
  title: "Log",
  question: "What was done, is it still tight?",
  body: LogStation,
  phone: PhoneLog,
};
