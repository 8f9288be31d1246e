import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { api, take, type Schemas } from "../../api/client";
import { useSchool } from "../../api/queries";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";
import { copyText } from "../../parts/copy";

/** The address under which calendar programs subscribe to the class. */
export function ClassCalendar({
  workspace: w,
  onClose,
}: {
  workspace: Schemas["WorkspaceView"];
  onClose: () => void;
}) {
  const path = { params: { path: { classId: w.head.id } } };
  const make = useAct((_: void, headers) =>
    take(api.POST("/api/classes/{classId}/calendar", { ...path, headers })),
  );
  const retire = useAct(() => take(api.DELETE("/api/classes/{classId}/calendar", path)), onClose);
  const [copied, setCopied] = useState(false);
  const school = useSchool();
  const address = w.calendar && `${school.data?.address ?? ""}${w.calendar}`;
  return (
    <Ask
      open
      title="Class calendar"
      act={address ? "Done" : "Make the class calendar"}
      busy={make.isPending}
      error={make.error ?? retire.error}
      onAct={() => (address ? onClose() : make.mutate())}
      onClose={onClose}
    >
      <Typography sx={{ mb: 1.5 }}>
        Terms, days off and what is due, for calendar programs that subscribe to an address. It names no
        student, and is shut when the class is archived.
      </Typography>
      {address && (
        <>
          <TextField
            fullWidth
            label="Address"
            value={address}
            onFocus={(e) => (e.target as HTMLInputElement).select()}
            slotProps={{ htmlInput: { readOnly: true } }}
          />
          <Button sx={{ ml: -1.75, mt: 0.5 }} onClick={() => void copyText(address).then(setCopied)}>
            {copied ? "Copied" : "Copy it"}
          </Button>
          <Button onClick={() => make.mutate()}>Make a new address</Button>
          <Button color="inherit" onClick={() => retire.mutate(undefined)}>
            Retire it
          </Button>
        </>
      )}
    </Ask>
  );
}
