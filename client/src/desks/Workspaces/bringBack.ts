import { api, take } from "../../api/client";
import { useAct } from "../../api/useAct";

/** A thing in the bin, as far as bringing it back goes. */
export interface InBin {
  kind: string;
  id: number;
  name: string;
  from?: string | null;
}

/** Brings a thing of a class back from the bin. */
export const useBringBack = (classId: number, then?: (thing: InBin) => void) =>
  useAct(
    (thing: InBin, headers) =>
      take(
        api.POST("/api/classes/{classId}/bin/{kind}/{thingId}/bring-back", {
          params: { path: { classId, kind: thing.kind, thingId: thing.id } },
          headers,
        }),
      ),
    (_, thing) => then?.(thing),
  );
