import Autocomplete from "@mui/material/Autocomplete";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, take, type Schemas } from "../../api/client";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";
import { count } from "../../parts/words";
import "./lead.css";

type Found = Schemas["FoundPerson"];

/** Chooses who leads a class from now on, and shows what that means before it is asked or done. */
export function LeadForm(props: { classId: number; sets: boolean; onClose: () => void }) {
  const { classId, sets } = props;
  const path = { path: { classId } };
  const [typed, setTyped] = useState("");
  const [who, setWho] = useState<Found | null>(null);
  const found = useQuery({
    queryKey: ["directory", classId, false, typed],
    enabled: typed.trim() !== "",
    placeholderData: keepPreviousData,
    queryFn: () =>
      take(api.GET("/api/directory", { params: { query: { starts: typed, students: false, classId } } })),
  });
  const means = useQuery({
    queryKey: ["lead-means", classId, who?.id],
    enabled: who !== null,
    gcTime: 0,
    queryFn: () =>
      take(api.POST("/api/classes/{classId}/lead/preview", { params: path, body: { person: who?.id ?? 0 } })),
  });
  const act = useAct((person: number, headers) => {
    const asked = { params: path, body: { person }, headers };
    return take(
      sets
        ? api.PUT("/api/classes/{classId}/lead", asked)
        : api.PUT("/api/classes/{classId}/lead/offer", asked),
    );
  }, props.onClose);
  const m = who ? means.data : undefined;
  return (
    <Ask
      open
      title={sets ? "Who leads this class?" : "Ask a colleague to lead this class"}
      act={!m ? (sets ? "Make lead teacher" : "Ask") : sets ? `Make ${m.name} lead teacher` : `Ask ${m.name}`}
      disabled={!m}
      busy={act.isPending}
      error={act.error ?? means.error ?? found.error}
      onAct={() => who && act.mutate(who.id)}
      onClose={props.onClose}
    >
      <Autocomplete
        className="roster-lead-who"
        options={found.data ?? noOne}
        value={who}
        onChange={(_, p) => setWho(p)}
        inputValue={typed}
        onInputChange={(_, text) => setTyped(text)}
        filterOptions={(all) => all}
        getOptionLabel={(p) => p.sortName}
        isOptionEqualToValue={(a, b) => a.id === b.id}
        noOptionsText={
          typed.trim() === "" ? "Type the first letters of a last name." : "Nobody of that name on the staff."
        }
        renderOption={(own, p) => (
          <li {...own} key={p.id}>
            {p.sortName}
            <span className="roster-lead-where">
              {p.inThisClass
                ? roles[p.inThisClass]
                : p.otherClasses.length > 0 && count(p.otherClasses.length, "class", "classes")}
            </span>
          </li>
        )}
        renderInput={(own) => <TextField {...own} label="By the first letters of the last name" autoFocus />}
      />
      {m && (
        <ul className="roster-lead-means" aria-label="What it means">
          <li>
            {m.name} opens, closes and rolls the class over, and puts folder plans to it
            {m.joins && "; they come onto its roster"}.
          </li>
          {m.stepDown.length > 0 && (
            <li>
              {m.stepDown.join(" and ")}{" "}
              {m.stepDown.length === 1 ? "stays as co-teacher" : "stay as co-teachers"}: arranging, enrolling,
              marking and returning, as before.
            </li>
          )}
          {m.leave.length > 0 && (
            <li>
              {m.leave.join(" and ")} {m.leave.length === 1 ? "is" : "are"} off the roster, having left the
              school.
            </li>
          )}
          <li>
            {m.shownNow === m.shownThen
              ? `Students go on seeing “${m.shownNow}” as the teacher.`
              : `Students see “${m.shownThen}” as the teacher instead of “${m.shownNow}”.`}
          </li>
          <li>The school’s records may say otherwise: their next delivery leaves it as it is set here.</li>
        </ul>
      )}
      {!sets && (
        <Typography color="text.secondary">
          You lead the class until they say yes, and can take it back until then. The coordinator can also do
          it without asking.
        </Typography>
      )}
    </Ask>
  );
}

const noOne: Found[] = [];

const roles: Record<Schemas["ClassRole"], string> = {
  Lead: "leads it now",
  CoTeacher: "co-teacher here",
  Student: "student",
};
