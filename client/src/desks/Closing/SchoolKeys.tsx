import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { api, take } from "../../api/client";
import { saveFile } from "../../parts/saveFile";
import Button from "@mui/material/Button";
import { PlainTable } from "../../parts/table/PlainTable";
import { sayDate } from "../../parts/words";

/** The keys by which packages and reports are known to be the school's. */
export function SchoolKeys() {
  const keys = useQuery({ queryKey: ["school-keys"], queryFn: () => take(api.GET("/api/loft/keys")) });
  if (!keys.data || keys.data.length === 0) return null;
  return (
    <>
      <PlainTable
        label="The school’s keys"
        heading="The school’s keys"
        rows={keys.data}
        id={(k) => k.fingerprint}
        soft={(k) => !k.signs}
        space={{ mt: 4 }}
        columns={[
          { head: "Fingerprint", main: true, cell: (k) => <code>{k.fingerprint}</code> },
          { head: "Since", says: "worth", by: (k) => k.since, cell: (k) => sayDate(k.since) },
          { head: "", cell: (k) => (k.signs ? "signs now" : "signs no more; what it signed holds") },
          {
            head: "",
            align: "right",
            cell: (k) => (
              <Button
                aria-label={`Download the key ${k.fingerprint}`}
                onClick={() => saveFile(new Blob([k.pem]), "school-key.pem")}
              >
                Download the key
              </Button>
            ),
          },
        ]}
      />
      <Typography color="text.secondary">
        Packages and the reports of closing runs are signed. Whoever has one compares its key with these
        fingerprints: write them down where they are found in ten years.
      </Typography>
    </>
  );
}
