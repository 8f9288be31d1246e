import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { api, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Empty } from "../../parts/Desk";
import { ItemName } from "../../parts/ThingTable";
import { Problem } from "../../parts/Problem";
import { count } from "../../parts/words";
import { PlainTable } from "../../parts/table/PlainTable";
import { pickable } from "../../parts/folders/lines";
import { PickOne } from "../../parts/PickOne";

/** Things that are in nobody's folder: file them, one or all, or bin them. */
export function FileAway({
  classId,
  items,
  folders,
}: {
  classId: number;
  items: Schemas["ItemView"][];
  folders: Schemas["FolderView"][];
}) {
  const [to, setTo] = useState<number | "">("");
  const file = useAct(async (ids: number[]) => {
    for (const itemId of ids)
      await take(
        api.PUT("/api/classes/{classId}/items/{itemId}/folders", {
          params: { path: { classId, itemId } },
          body: { folders: [Number(to)] },
        }),
      );
  });
  const bin = useAct((itemId: number) =>
    take(api.DELETE("/api/classes/{classId}/items/{itemId}", { params: { path: { classId, itemId } } })),
  );
  if (items.length === 0) return <Empty title="Everything is filed." />;
  return (
    <Box>
      <Typography variant="h2">Unfiled</Typography>
      <Typography variant="body2" sx={{ color: "text.secondary", mb: 1 }}>
        These stand in no folder, so no student finds them.
      </Typography>
      <Box sx={{ display: "flex", gap: 1, mb: 1 }}>
        <PickOne
          label="File in"
          minWidth={320}
          options={pickable(folders)}
          value={to === "" ? null : to}
          onChange={(f) => setTo(f ?? "")}
        />
        <Button
          variant="contained"
          disabled={to === "" || file.isPending}
          onClick={() => file.mutate(items.map((i) => i.id))}
        >
          File {count(items.length, "thing", "things")}
        </Button>
      </Box>
      <Problem error={file.error ?? bin.error} />
      <PlainTable
        label="Unfiled things"
        bare
        rows={items}
        id={(i) => i.id}
        columns={[
          { head: "Thing", cell: (i) => <ItemName item={i} classId={classId} /> },
          {
            head: "",
            align: "right",
            cell: (i) => (
              <>
                <Button
                  disabled={to === "" || file.isPending}
                  onClick={() => file.mutate([i.id])}
                  aria-label={`File ${i.name}`}
                >
                  File
                </Button>
                <Button color="inherit" onClick={() => bin.mutate(i.id)} aria-label={`Bin ${i.name}`}>
                  Bin
                </Button>
              </>
            ),
          },
        ]}
      />
    </Box>
  );
}
