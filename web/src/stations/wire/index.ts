import type { Station } from "../station";

export const wire: Station = {
  name: "wire",
  title: "Wire",
  question: "What plugs into what?",
  later: "Will compute strings, controllers, cable, fuses, the gland and what the meter should read. Not built yet.",
};
