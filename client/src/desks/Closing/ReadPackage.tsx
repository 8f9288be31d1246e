import Box from "@mui/material/Box";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { sendFile, type Schemas } from "../../api/client";
import { useSchool } from "../../api/queries";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";
import { StateMark } from "../../parts/StateMark";
import { count } from "../../parts/words";
import { FileButton } from "../../parts/FileButton";

/** Reads an archive package back in: checked byte by byte, shown, then taken into the loft. */
export function ReadPackage() {
  const school = useSchool();
  const years = school.data?.years ?? [];
  const [file, setFile] = useState<File | null>(null);
  const [yearChosen, setYear] = useState<number>();
  const year = yearChosen ?? years[0]?.id;
  const send = (apply: boolean) =>
    sendFile<Schemas["PackageRead"]>(`/api/loft/zips?year=${year}&apply=${apply}`, file!, () => {});
  const check = useAct<void, Schemas["PackageRead"]>(() => send(false));
  const read = useAct<void, Schemas["PackageRead"]>(() => send(true));
  const p = check.data;
  const close = () => {
    setFile(null);
    check.reset();
    read.reset();
  };
  return (
    <Box component="section" aria-label="Read a package in" sx={{ mt: 2 }}>
      <Typography variant="h2">Read a package back in</Typography>
      <Typography sx={{ color: "text.secondary", mb: 1 }}>
        An archive package of this school or another installation stands in the loft again, as it was.
      </Typography>
      <FileButton
        accept=".zip"
        onFiles={(files) => {
          check.reset();
          read.reset();
          setFile(files[0] ?? null);
        }}
      >
        Choose a package…
      </FileButton>
      <Ask
        open={file !== null}
        title={`Read “${file?.name}” in`}
        act={read.data ? "Close" : p ? "Take it into the loft" : "Check it"}
        busy={check.isPending || read.isPending}
        error={check.error ?? read.error}
        onAct={() => (read.data ? close() : p ? read.mutate() : check.mutate())}
        onClose={close}
      >
        <TextField
          select
          label="School year that it belongs to"
          value={year ?? ""}
          onChange={(e) => {
            setYear(Number(e.target.value));
            check.reset();
          }}
          sx={{ mt: 1, minWidth: 220 }}
        >
          {years.map((y) => (
            <MenuItem key={y.id} value={y.id}>
              {y.label}
            </MenuItem>
          ))}
        </TextField>
        {p && !read.data && (
          <Typography sx={{ mt: 1.5 }} role="status">
            <StateMark mark="done">whole: every file is as it was written</StateMark>
            <br />“{p.name}”, {p.course}: {count(p.files, "file", "files")},{" "}
            {count(p.folders, "folder", "folders")}, {count(p.items, "thing", "things")},{" "}
            {count(p.assignments, "assignment", "assignments")},{" "}
            {count(p.work, "piece of work", "pieces of work")}. Of {count(p.people, "person", "people")} on
            its roster the directory knows {p.known}; the others come in as inactive.
          </Typography>
        )}
        {read.data && (
          <Typography sx={{ mt: 1.5 }} role="status">
            <StateMark mark="done">“{read.data.name}” stands in the loft.</StateMark>
          </Typography>
        )}
      </Ask>
    </Box>
  );
}
