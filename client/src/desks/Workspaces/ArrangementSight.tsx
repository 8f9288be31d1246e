import Box from "@mui/material/Box";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableHead from "@mui/material/TableHead";
import TableRow from "@mui/material/TableRow";
import TextField from "@mui/material/TextField";
import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";
import Typography from "@mui/material/Typography";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, take, type Schemas } from "../../api/client";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";
import { count } from "../../parts/words";

const names: Record<Schemas["ArrangementKind"], string> = {
  OnePerClass: "a workspace each",
  Shared: "one shared workspace",
  InStep: "each, kept in step by one plan",
};

const rights: Record<Schemas["Right"], string> = {
  None: "–",
  View: "looks",
  Add: "adds",
  Edit: "changes",
  Manage: "manages",
};

/** For each arrangement of some sections, what each kind of person will see: computed by the rules, before anything is made. */
export function ArrangementSight({ plan, year }: { plan: number; year?: number }) {
  const [text, setText] = useState("6A\n6B\n7A");
  const [kind, setKind] = useState<Schemas["ArrangementKind"]>("OnePerClass");
  const sections = text
    .split("\n")
    .map((s) => s.trim())
    .filter(Boolean);
  const shown = useQuery({
    queryKey: ["arrangements", plan, year, sections],
    enabled: sections.length > 0,
    placeholderData: keepPreviousData,
    retry: false,
    queryFn: () =>
      take(api.POST("/api/arrangements", { body: { plan, year: year ?? null, term: null, sections } })),
  });
  const a = shown.data?.find((x) => x.kind === kind);
  return (
    <Box
      component="section"
      aria-label="Arrangements"
      sx={{ mt: 3, borderTop: 1, borderColor: "divider", pt: 2 }}
    >
      <Typography variant="h2">Which arrangement?</Typography>
      <Typography variant="body2" sx={{ color: "text.secondary", mb: 1.5 }}>
        Sections or year groups that are taught alike can have a workspace each, share one, or be kept in
        step. This is what each kind of person would see with the plan chosen at the right.
      </Typography>
      <Box sx={{ display: "grid", gridTemplateColumns: { xs: "1fr", md: "200px minmax(0, 1fr)" }, gap: 3 }}>
        <TextField
          multiline
          minRows={3}
          label="Sections, one a line"
          value={text}
          onChange={(e) => setText(e.target.value)}
        />
        <Box sx={{ minWidth: 0 }}>
          <ToggleButtonGroup
            exclusive
            size="small"
            value={kind}
            onChange={(_, v: typeof kind | null) => v && setKind(v)}
            aria-label="Arrangement"
            sx={{ mb: 1 }}
          >
            {(Object.keys(names) as (typeof kind)[]).map((k) => (
              <ToggleButton key={k} value={k}>
                {names[k]}
              </ToggleButton>
            ))}
          </ToggleButtonGroup>
          <Problem error={shown.error} />
          {a && (
            <>
              <Typography>
                <strong>
                  {count(a.workspaces, "workspace", "workspaces")}, {count(a.folders, "folder", "folders")}.
                </strong>{" "}
                {a.says}
              </Typography>
              {a.warning && (
                <Typography>
                  <StateMark mark="attention">{a.warning}</StateMark>
                </Typography>
              )}
              <Box sx={{ overflowX: "auto", mt: 1 }}>
                <Table aria-label="What each kind of person will see">
                  <TableHead>
                    <TableRow>
                      <TableCell>Who</TableCell>
                      <TableCell align="right">Sees</TableCell>
                      {a.kinds[0]?.tops.map((t) => (
                        <TableCell key={t.folder}>{t.folder}</TableCell>
                      ))}
                    </TableRow>
                  </TableHead>
                  <TableBody>
                    {a.kinds.map((k) => (
                      <TableRow key={k.who}>
                        <TableCell sx={{ whiteSpace: "nowrap" }}>{k.who}</TableCell>
                        <TableCell align="right" sx={{ whiteSpace: "nowrap" }}>
                          {k.sees} of {k.of}
                        </TableCell>
                        {k.tops.map((t) => (
                          <TableCell
                            key={t.folder}
                            title={t.why}
                            sx={{ color: t.right === "None" ? "text.secondary" : undefined }}
                          >
                            {rights[t.right]}
                          </TableCell>
                        ))}
                      </TableRow>
                    ))}
                  </TableBody>
                </Table>
              </Box>
              {kind === "Shared" && (
                <Typography variant="body2" sx={{ mt: 1 }}>
                  {a.kinds.every((k) => k.notOthers)
                    ? "No student sees another section's folders."
                    : "Students would see folders that are another section's alone."}
                </Typography>
              )}
            </>
          )}
        </Box>
      </Box>
    </Box>
  );
}
