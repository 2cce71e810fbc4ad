import type { Station } from "../station";

export const seal: Station = {
  name: "seal",
  title: "Seal",
  question: "What keeps water out?",
  later:
    "Will plan each hole, scar and gland: layers, which sealant bonds to this roof, cure before driving. Until then the work sheet lists sealant and bead.",
};
