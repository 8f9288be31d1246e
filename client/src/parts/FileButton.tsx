import Button from "@mui/material/Button";
import { useRef } from "react";

/** A button that has files chosen. */
export function FileButton(props: {
  /** What stands on it. */
  children: string;
  onFiles: (files: File[]) => void;
  /** What the chooser behind it is called, where that is not what stands on it. */
  label?: string;
  accept?: string;
  multiple?: boolean;
  /** Whole folders, with all that is in them. */
  folder?: boolean;
  /** Takes a photo where there is a camera. */
  camera?: boolean;
  disabled?: boolean;
  /** A state of its own look, in place of the framed one. */
  variant?: "text" | "outlined" | "contained";
}) {
  const chooser = useRef<HTMLInputElement | null>(null);
  return (
    <>
      <Button
        variant={props.variant ?? "outlined"}
        disabled={props.disabled}
        onClick={() => chooser.current?.click()}
      >
        {props.children}
      </Button>
      <input
        type="file"
        hidden
        aria-label={props.label ?? props.children}
        accept={props.accept}
        multiple={props.multiple}
        capture={props.camera ? "environment" : undefined}
        ref={(input) => {
          chooser.current = input;
          if (props.folder) input?.setAttribute("webkitdirectory", "");
        }}
        onChange={(e) => {
          const files = [...(e.target.files ?? [])];
          // The same one can be chosen again.
          e.target.value = "";
          if (files.length > 0) props.onFiles(files);
        }}
      />
    </>
  );
}
