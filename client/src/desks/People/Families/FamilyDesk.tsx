import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, take, type Schemas } from "../../../api/client";
import { useAct } from "../../../api/useAct";
import { Ask } from "../../../parts/Ask";
import { Desk, Empty } from "../../../parts/Desk";
import { EnrollPlaces } from "../../../parts/EnrollPlaces";
import { FindInList } from "../../../parts/ListBar";
import { Problem } from "../../../parts/Problem";
import { StateMark } from "../../../parts/StateMark";
import { TickTable } from "../../../parts/table/TickTable";
import { count, sayDate } from "../../../parts/words";
import { ContactForm } from "./ContactForm";
import { noLetterWords } from "./contacts";
import { LetterLook } from "./LetterLook";
import { WeeklySlip } from "./WeeklySlip";
import "./families.css";

type Line = Schemas["ContactLine"];

/** Who at home is written to about whom, and the letter that goes out each week. */
export function FamilyDesk({ me }: { me: Schemas["Me"] }) {
  const [find, setFind] = useState("");
  const [ticked, setTicked] = useState<ReadonlySet<number>>(new Set());
  const [editing, setEditing] = useState<Line | "new" | null>(null);
  const [removing, setRemoving] = useState<Line | null>(null);
  const [looking, setLooking] = useState<Line | "first" | null>(null);
  const families = useQuery({
    queryKey: ["families", find],
    placeholderData: keepPreviousData,
    queryFn: () => take(api.GET("/api/families", { params: { query: { find } } })),
  });
  const let_ = useAct(
    (to: boolean, headers) =>
      take(api.POST("/api/families/let", { body: { contacts: [...ticked], let: to }, headers })),
    () => setTicked(new Set()),
  );
  const remove = useAct(
    (id: number, headers) =>
      take(api.DELETE("/api/families/{contactId}", { params: { path: { contactId: id } }, headers })),
    () => setRemoving(null),
  );
  const v = families.data;
  const rows = v?.contacts ?? [];
  const language = (code: string) => v?.languages.find((l) => l.code === code)?.name ?? code;
  return (
    <Desk
      title="Families"
      wide
      lead="Whom the school may write to at home. They have no account and no sign-in; a letter is about their own students and nobody else."
      slip={v && <WeeklySlip view={v.weekly} none={v.found === 0} onLook={() => setLooking("first")} />}
    >
      <EnrollPlaces me={me} />
      <Problem error={families.error ?? let_.error} />
      <div className="families-bar">
        <FindInList label="Find a contact or a student" value={find} onChange={setFind} />
        <span className="grows" />
        {ticked.size > 0 && (
          <>
            <Button variant="outlined" disabled={let_.isPending} onClick={() => let_.mutate(true)}>
              Let {count(ticked.size, "contact", "contacts")} be written to
            </Button>
            <Button variant="outlined" disabled={let_.isPending} onClick={() => let_.mutate(false)}>
              Not any more
            </Button>
          </>
        )}
        <Button variant={ticked.size > 0 ? "outlined" : "contained"} onClick={() => setEditing("new")}>
          Add a contact
        </Button>
      </div>
      {v && v.found === 0 && (
        <Empty title={find ? "Nobody has that in their name." : "There is no contact yet."}>
          {find
            ? "Neither a contact nor one of their students."
            : "They come with the school's records, or are added here by hand."}
        </Empty>
      )}
      {rows.length > 0 && (
        <TickTable
          label="Contacts of families"
          rows={rows}
          id={(k) => k.id}
          ticks={{
            ticked,
            set: setTicked,
            label: (k) => `Tick ${k.name}`,
            all: "Tick all that are listed",
            elsewhere: true,
          }}
          columns={[
            {
              head: "Contact",
              main: true,
              says: (k) => (k.email ? `${k.name} <${k.email}>` : k.name),
              cell: (k) => (
                <>
                  {k.name}
                  {k.email && (
                    <Typography variant="body2" color="textSecondary" className="contact-mail">
                      {k.email}
                    </Typography>
                  )}
                </>
              ),
            },
            {
              head: "Of",
              says: (k) => k.children.map((x) => x.name).join(", "),
              cell: (k) =>
                k.children.map((x) => (x.grade ? `${x.name} (grade ${x.grade})` : x.name)).join(", "),
            },
            { head: "Language", look: "soft", cell: (k) => language(k.language) },
            { head: "From", look: "soft", cell: (k) => (k.fromRecords ? "records" : "by hand") },
            {
              head: "Letters",
              by: (k) => (k.why ? noLetterWords[k.why][1] : ""),
              says: (k) => (k.why ? noLetterWords[k.why][1] : "may be written to"),
              cell: (k) => (
                <StateMark mark={k.why ? noLetterWords[k.why][0] : "done"}>
                  {k.why ? noLetterWords[k.why][1] : "may be written to"}
                  {k.letterOn && `, last ${sayDate(k.letterOn)}`}
                </StateMark>
              ),
            },
            {
              head: "Acts",
              unsorted: true,
              cell: (k) => (
                <span className="contact-acts">
                  <Button
                    color="inherit"
                    aria-label={`Look at the letter to ${k.name}`}
                    onClick={() => setLooking(k)}
                  >
                    Letter
                  </Button>
                  <Button color="inherit" aria-label={`Change ${k.name}`} onClick={() => setEditing(k)}>
                    Change
                  </Button>
                  {(!k.fromRecords || k.why === "Gone") && (
                    <Button color="inherit" aria-label={`Remove ${k.name}`} onClick={() => setRemoving(k)}>
                      Remove
                    </Button>
                  )}
                </span>
              ),
            },
          ]}
        />
      )}
      {v && v.found > rows.length && (
        <Typography className="under">
          The first {rows.length} of {v.found} are shown: find the others by typing.
        </Typography>
      )}
      {editing && v && (
        <ContactForm
          contact={editing === "new" ? null : editing}
          languages={v.languages}
          onClose={() => setEditing(null)}
        />
      )}
      {looking && v && rows.length > 0 && (
        <LetterLook
          contacts={rows}
          first={looking === "first" ? undefined : looking.id}
          weekly={v.weekly}
          onClose={() => setLooking(null)}
        />
      )}
      {removing && (
        <Ask
          open
          title={`Remove ${removing.name}?`}
          act="Remove the contact"
          busy={remove.isPending}
          error={remove.error}
          onAct={() => remove.mutate(removing.id)}
          onClose={() => setRemoving(null)}
        >
          <Typography>
            No letter goes to them any more; one that waits is taken back. Their students stay as they are.
          </Typography>
        </Ask>
      )}
    </Desk>
  );
}
