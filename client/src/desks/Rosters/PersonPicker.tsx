import Autocomplete from "@mui/material/Autocomplete";
import Box from "@mui/material/Box";
import TextField from "@mui/material/TextField";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, take, type Schemas } from "../../api/client";

type Found = Schemas["FoundPerson"];

/** Fills a list of people from the directory: first letters of a last name, Enter, the next. */
export function PersonPicker(props: {
  classId: number;
  students: boolean;
  picked: Found[];
  onChange: (p: Found[]) => void;
  onDone: () => void;
}) {
  const { classId, students, picked } = props;
  const [typed, setTyped] = useState("");
  const found = useQuery({
    queryKey: ["directory", classId, students, typed],
    enabled: typed.trim() !== "",
    placeholderData: keepPreviousData,
    queryFn: () =>
      take(api.GET("/api/directory", { params: { query: { starts: typed, students, classId } } })),
  });
  return (
    <Autocomplete
      multiple
      autoHighlight
      forcePopupIcon={false}
      filterSelectedOptions
      clearOnBlur={false}
      options={typed.trim() === "" ? [] : (found.data ?? [])}
      filterOptions={(o) => o}
      value={picked}
      inputValue={typed}
      onInputChange={(_, v, why) => why !== "blur" && setTyped(v)}
      onChange={(_, v) => {
        props.onChange(v as Found[]);
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
          <Box
            component="span"
            sx={{
              color: "text.secondary",
              overflow: "hidden",
              textOverflow: "ellipsis",
              whiteSpace: "nowrap",
            }}
          >
            {p.inThisClass
              ? "on this roster already"
              : p.otherClasses.length > 0
                ? `in ${p.otherClasses.length} ${p.otherClasses.length === 1 ? "class" : "classes"}: ${p.otherClasses[0]}`
                : "in no class"}
          </Box>
        </Box>
      )}
      renderInput={(params) => (
        <TextField
          {...params}
          autoFocus
          label={
            students
              ? "Students, by the first letters of the last name"
              : "Staff, by the first letters of the last name"
          }
        />
      )}
    />
  );
}
