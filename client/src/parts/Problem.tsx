import Alert from "@mui/material/Alert";
import { ProblemError } from "../api/client";

/** An error, said where it happened: what is wrong, and what to do. */
export function Problem({ error }: { error: unknown }) {
  if (!error) return null;
  const p = error instanceof ProblemError ? error : null;
  return (
    <Alert severity="error" role="alert" sx={{ my: 1 }}>
      <strong>{p?.what ?? "Something went wrong on this page."}</strong>{" "}
      {p?.mend ?? "Reload it and try again."}
    </Alert>
  );
}
