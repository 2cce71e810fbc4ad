/** Which part of a station is open: in the address, so that a reload and a link keep it; remembered while other stations are looked at. */
import { useCallback, useEffect, useRef } from "react";
import { useSearchParams } from "react-router";
import { putInAddress } from "../job/address";
import { useDesk } from "../job/JobContext";

/** ``asked`` is the part that something picked or led to belongs to; the part opens when that changes. */
export function usePart(station: string, first: string, asked: string | null): [string, (part: string) => void] {
  const { id } = useDesk();
  const [params, setParams] = useSearchParams();
  const key = `part:${id}:${station}`;
  const inAddress = params.get("part");
  const choose = useCallback(
    (part: string) => {
      sessionStorage.setItem(key, part);
      putInAddress(setParams, "part", part);
    },
    [key, setParams],
  );
  const last = useRef(inAddress ? asked : null);
  useEffect(() => {
    if (asked !== last.current) {
      last.current = asked;
      if (asked) choose(asked);
    }
  }, [asked, choose]);
  return [inAddress ?? asked ?? sessionStorage.getItem(key) ?? first, choose];
}
