/** What a reading of the wrench is told as. */
import type { Findings } from "../../api/types";

export const TORQUE_WORDS: Record<Findings["torques"][number]["state"], string> = {
  right: "as wanted",
  loose: "loose: tighten on",
  tight: "too much: slacken, tighten anew",
  "too tight": "too tight: new bolt",
  "not planned": "not planned",
};
