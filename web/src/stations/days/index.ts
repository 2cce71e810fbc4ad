import type { Station } from "../station";

export const days: Station = {
  name: "days",
  title: "Days",
  question: "When can it be done?",
  later:
    "Will find the days: step order, weather windows, crew and lead times. Until then the steps stand on Roof day.",
};
