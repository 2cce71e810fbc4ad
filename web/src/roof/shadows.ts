/** The shadows that lie on the roof while some station looks at an hour. */
import type { ShadeMoment } from "../api/types";
import { shared } from "../ui/shared";

export const shadowsLookedAt = shared<ShadeMoment | null>(null);
