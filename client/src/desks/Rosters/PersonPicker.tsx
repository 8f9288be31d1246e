import Autocomplete from "@mui/material/Autocomplete";
import Box from "@mui/material/Box";
import IconButton from "@mui/material/IconButton";
import TextField from "@mui/material/TextField";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { api, take, type Schemas } from "../../api/client";
import { count } from "../../parts/words";

type Found = Schemas["FoundPerson"];

const rowsAtOnce = 10;
const rowHeight = 34;

/** A ruled sheet of people from the directory: first letters of a last name, Enter, the next row; ten more rows as one goes on. */
export function PersonPicker(props: {
  classId: number;
  students: boolean;
  picked: Found[];
  onChange: (p: Found[]) => void;
  onDone: () => void;
}) {
  const { classId, students, picked } = props;
  const [typed, setTyped] = useState("");
  const sheet = useRef<HTMLDivElement>(null);
  const found = useQuery({
    queryKey: ["directory", classId, students, typed],
    enabled: typed.trim() !== "",
    placeholderData: keepPreviousData,
    queryFn: () =>
      take(api.GET("/api/directory", { params: { query: { starts: typed, students, classId } } })),
  });
  const rows = Math.ceil((picked.length + 1) / rowsAtOnce) * rowsAtOnce;
  const blank = rows - picked.length - 1;
  const field = students
    ? "Students, by the first letters of the last name"
    : "Staff, by the first letters of the last name";
  // The row that is being written stays in sight, with the next one below it.
  useEffect(() => {
    const box = sheet.current;
    if (box) box.scrollTop = Math.max(0, (picked.length + 2) * rowHeight - box.clientHeight);
  }, [picked.length]);
  return (
    <Box
      ref={sheet}
      sx={{
        border: 1,
        borderColor: "divider",
        borderRadius: 1,
        bgcolor: "background.paper",
        // Short while there is little on it, so that the roster below stays in sight.
        maxHeight: Math.min(rowsAtOnce, Math.max(5, picked.length + 3)) * rowHeight + 2,
        overflowY: "auto",
        position: "relative",
      }}
    >
      {picked.length > 0 && (
        <Box component="ol" aria-label="To be enrolled" sx={{ listStyle: "none", m: 0, p: 0 }}>
          {picked.map((p, i) => (
            <Row key={p.id} number={i + 1} as="li">
              <Box sx={{ fontWeight: 600, flex: "0 1 230px", minWidth: 0, ...cut }}>{p.sortName}</Box>
              <Box sx={{ color: "text.secondary", width: 76, flex: "none" }}>
                {p.grade && `grade ${p.grade}`}
              </Box>
              <Box className="figure" sx={{ color: "text.secondary", width: 64, flex: "none" }}>
                {p.studentNumber}
              </Box>
              <Box sx={{ color: "text.secondary", flex: 1, minWidth: 0, ...cut }}>{whereElse(p)}</Box>
              <IconButton
                size="small"
                aria-label={`Take ${p.sortName} off the list`}
                onClick={() => props.onChange(picked.filter((x) => x.id !== p.id))}
              >
                <Box component="span" aria-hidden="true" sx={{ lineHeight: 1, width: "1em" }}>
                  ×
                </Box>
              </IconButton>
            </Row>
          ))}
        </Box>
      )}
      <Row number={picked.length + 1} active>
        <Autocomplete
          autoHighlight
          fullWidth
          forcePopupIcon={false}
          slotProps={{ listbox: { sx: { maxHeight: 230 } } }}
          clearIcon={null}
          clearOnBlur={false}
          options={
            typed.trim() === "" ? [] : (found.data ?? []).filter((f) => picked.every((p) => p.id !== f.id))
          }
          filterOptions={(o) => o}
          value={null}
          inputValue={typed}
          onInputChange={(_, v, why) => why !== "blur" && why !== "reset" && setTyped(v)}
          onChange={(_, p) => {
            if (p) props.onChange([...picked, p]);
            setTyped("");
          }}
          getOptionLabel={(p) => p.sortName}
          getOptionKey={(p) => p.id}
          isOptionEqualToValue={(a, b) => a.id === b.id}
          getOptionDisabled={(p) => p.inThisClass != null}
          noOptionsText={
            typed.trim() === ""
              ? "Type the first letters of a last name."
              : "Nobody of that name is in the directory."
          }
          onKeyDown={(e) => {
            if (e.key === "Enter" && e.ctrlKey) {
              e.preventDefault();
              props.onDone();
            } else if (e.key === "Backspace" && typed === "" && picked.length > 0) {
              props.onChange(picked.slice(0, -1));
            }
          }}
          renderOption={({ key, ...rest }, p) => (
            <Box component="li" key={key} {...rest} sx={{ gap: 1.5 }}>
              <Box component="span" sx={{ fontWeight: 600, minWidth: 200 }}>
                {p.sortName}
              </Box>
              <Box component="span" sx={{ color: "text.secondary", minWidth: 70 }}>
                {p.grade ? `grade ${p.grade}` : ""}
              </Box>
              <Box component="span" sx={{ color: "text.secondary", minWidth: 50 }}>
                {p.studentNumber}
              </Box>
              <Box component="span" sx={{ color: "text.secondary", ...cut }}>
                {p.inThisClass ? "on this roster already" : whereElse(p)}
              </Box>
            </Box>
          )}
          renderInput={(params) => (
            <TextField
              {...params}
              autoFocus
              variant="standard"
              sx={{ "& input::placeholder": { color: "text.secondary", opacity: 1 } }}
              placeholder={picked.length === 0 ? field : ""}
              slotProps={{
                ...params.slotProps,
                input: { ...params.slotProps.input, disableUnderline: true },
                htmlInput: { ...params.slotProps.htmlInput, "aria-label": field },
              }}
            />
          )}
        />
      </Row>
      <Box aria-hidden="true">
        {Array.from({ length: blank }, (_, i) => (
          <Row key={i} number={picked.length + 2 + i} />
        ))}
      </Box>
    </Box>
  );
}

const cut = { overflow: "hidden", textOverflow: "ellipsis", whiteSpace: "nowrap" } as const;

function whereElse(p: Found) {
  return p.otherClasses.length > 0
    ? `in ${count(p.otherClasses.length, "class", "classes")}: ${p.otherClasses[0]}`
    : "in no class";
}

function Row(props: { number: number; active?: boolean; as?: "li"; children?: React.ReactNode }) {
  return (
    <Box
      component={props.as ?? "div"}
      sx={{
        display: "flex",
        alignItems: "center",
        gap: 1.5,
        height: rowHeight,
        pr: 0.5,
        borderTop: props.number === 1 ? 0 : 1,
        borderColor: "divider",
        bgcolor: props.active ? "action.hover" : undefined,
      }}
    >
      <Box
        aria-hidden="true"
        className="figure"
        sx={{
          width: 38,
          height: "100%",
          flex: "none",
          display: "flex",
          alignItems: "center",
          justifyContent: "flex-end",
          pr: 1,
          borderRight: 1,
          borderColor: "divider",
          color: "text.secondary",
          fontSize: "0.8rem",
        }}
      >
        {props.number}
      </Box>
      {props.children}
    </Box>
  );
}
