import Box from "@mui/material/Box";
import Chip from "@mui/material/Chip";
import MenuItem from "@mui/material/MenuItem";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableHead from "@mui/material/TableHead";
import TableRow from "@mui/material/TableRow";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { useSearchParams } from "react-router";
import { api, take, type Schemas } from "../../api/client";
import { useBoard, usePlans } from "../../api/queries";
import { PlanPlaces } from "../../parts/PlanPlaces";
import { Problem } from "../../parts/Problem";
import { UnfoldingCounts, UnfoldingTree } from "../../parts/UnfoldingTree";
import { ruleWords, standsWords } from "../../parts/words";

/** The plan desk: the outline at the left, what it unfolds to for a real class at the right. */
export function PlanDesk({ me }: { me: Schemas["Me"] }) {
  const plans = usePlans();
  const board = useBoard();
  const [address, setAddress] = useSearchParams();
  const plan = plans.data?.find((p) => p.id === Number(address.get("plan"))) ?? plans.data?.[0];
  const asked = Number(address.get("class"));
  const known = board.data?.rows ?? [];
  const classId = known.some((r) => r.id === asked) ? asked : known[0]?.id;
  const unfolding = useQuery({
    queryKey: ["unfolding", plan?.id, classId],
    enabled: plan !== undefined && classId !== undefined,
    queryFn: () =>
      take(
        api.GET("/api/classes/{classId}/unfolding", {
          params: { path: { classId: classId! }, query: { plan: plan!.id } },
        }),
      ),
  });
  const set = (name: string, value: string) =>
    setAddress((a) => {
      a.set(name, value);
      return a;
    });
  useEffect(() => {
    document.title = "Plan · Spring Loft";
  }, []);
  return (
    <Box
      component="main"
      sx={{
        display: "grid",
        gridTemplateColumns: { xs: "1fr", md: "minmax(0, 43fr) minmax(0, 57fr)" },
        minHeight: "calc(100vh - 88px)",
      }}
    >
      <Box sx={{ px: 2.75, py: 2, borderRight: { md: 1 }, borderColor: { md: "divider" } }}>
        <PlanPlaces me={me} />
        <Typography variant="h1">{plan?.name ?? "Folder plans"}</Typography>
        <Typography sx={{ color: "text.secondary", mt: 0.5, mb: 1.5 }}>{plan?.about}</Typography>
        <Problem error={plans.error} />
        <TextField
          select
          label="Folder plan"
          value={plan?.id ?? ""}
          onChange={(e) => set("plan", e.target.value)}
          sx={{ minWidth: 220, mb: 1 }}
        >
          {(plans.data ?? []).map((p) => (
            <MenuItem key={p.id} value={p.id}>
              {p.name}
            </MenuItem>
          ))}
        </TextField>
        <Table aria-label="Outline of the plan">
          <TableHead>
            <TableRow>
              <TableCell>Folder</TableCell>
              <TableCell>Stands</TableCell>
              <TableCell>Who</TableCell>
            </TableRow>
          </TableHead>
          <TableBody>
            {(plan?.outline ?? []).map((l, i) => (
              <TableRow key={i}>
                <TableCell sx={{ pl: 1 + l.depth * 3 }}>
                  <Pattern text={l.namePattern} />
                </TableCell>
                <TableCell>
                  {standsWords[l.stands]}
                  {l.entries > 0 && `, ${l.entries}`}
                </TableCell>
                <TableCell>{ruleWords[l.rule]}</TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
        <Typography variant="body2" sx={{ color: "text.secondary", mt: 1.5 }}>
          Decide the structure before a single student is added. Start with the folders you need now: own
          folders unfold by themselves when a student joins.
        </Typography>
      </Box>
      <Box sx={{ px: 2.75, py: 2, bgcolor: "background.paper", minWidth: 0 }}>
        <Box sx={{ display: "flex", gap: 1.5, alignItems: "center", mb: 1.5 }}>
          <Typography variant="h2" sx={{ whiteSpace: "nowrap" }}>
            Unfolds to, for
          </Typography>
          <TextField
            select
            variant="standard"
            value={classId ?? ""}
            onChange={(e) => set("class", e.target.value)}
            slotProps={{ htmlInput: { "aria-label": "Class" } }}
            sx={{ minWidth: 240 }}
          >
            {known.map((r) => (
              <MenuItem key={r.id} value={r.id}>
                {r.name}
              </MenuItem>
            ))}
          </TextField>
        </Box>
        <Problem error={unfolding.error ?? board.error} />
        {unfolding.data && (
          <>
            <UnfoldingCounts view={unfolding.data} />
            <UnfoldingTree key={`${plan?.id}-${classId}`} tree={unfolding.data.tree} />
          </>
        )}
      </Box>
    </Box>
  );
}

/** A name pattern with its placeholders as chips. */
export function Pattern({ text }: { text: string }) {
  return (
    <Box component="span" sx={{ fontWeight: 600 }}>
      {text
        .split(/(\{[a-z ]+\})/)
        .map((part, i) =>
          part.startsWith("{") ? (
            <Chip
              key={i}
              size="small"
              color="success"
              variant="outlined"
              label={part.slice(1, -1)}
              sx={{ height: 20, borderRadius: 0.5 }}
            />
          ) : (
            part
          ),
        )}
    </Box>
  );
}
