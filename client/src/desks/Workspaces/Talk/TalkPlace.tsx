import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState, type KeyboardEvent } from "react";
import { api, ProblemError, take, type Schemas } from "../../../api/client";
import { byItself } from "../../../api/byItself";
import { useAct } from "../../../api/useAct";
import { Problem } from "../../../parts/Problem";
import { StateMark } from "../../../parts/StateMark";
import { useDraft } from "../../../parts/useDraft";
import { later } from "../../../parts/later";
import "./talk.css";
import { TalkLine } from "./TalkLine";
import { cantWords, inThreads } from "./talking";

const TalkKeeping = later(() => import("./TalkKeeping"), "TalkKeeping");

/** What is talked about in a folder: messages with their answers, the question of the day, and the place to write. */
export function TalkPlace(props: {
  classId: number;
  folderId: number;
  groups: readonly Schemas["GroupName"][];
  staff: boolean;
  shut: boolean;
}) {
  const { classId, folderId, staff } = props;
  const path = { classId, folderId };
  const [before, setBefore] = useState<number | undefined>(undefined);
  const talk = useQuery({
    queryKey: ["talk", classId, folderId, before ?? null],
    // What others write is seen without asking; what is looked at of earlier days stands still.
    refetchInterval: before === undefined ? 10_000 : false,
    queryFn: (asked) =>
      take(
        api.GET("/api/classes/{classId}/folders/{folderId}/talk", {
          params: { path, query: { before } },
          headers: byItself(asked),
        }),
      ),
  });
  const { draft, change, drop } = useDraft(`talk:${classId}:${folderId}`, {
    text: "",
    answers: null as number | null,
  });
  const write = useAct(
    (_: void, headers) =>
      take(
        api.POST("/api/classes/{classId}/folders/{folderId}/talk/messages", {
          params: { path },
          body: { text: draft.text, answers: draft.answers },
          headers,
        }),
      ),
    () => {
      drop();
      setBefore(undefined);
    },
  );
  const t = talk.data;
  if (!t?.setting) return <Problem error={talk.error} />;
  const send = () => draft.text.trim() !== "" && !write.isPending && write.mutate();
  const onKeys = (e: KeyboardEvent) => {
    if (e.key === "Enter" && (e.ctrlKey || e.metaKey)) {
      e.preventDefault();
      send();
    }
  };
  const answered = t.messages.find((m) => m.id === draft.answers);
  const refused = write.error instanceof ProblemError && write.error.field === "text";
  return (
    <section className="talk" aria-label="Talk">
      {t.asksToday && (
        <p className="talk-question">
          <strong>{t.setting.question}</strong>{" "}
          {!staff &&
            (t.answered ? (
              <StateMark mark="done">you have answered today</StateMark>
            ) : (
              <StateMark mark="notYet">not answered today</StateMark>
            ))}
        </p>
      )}
      {staff && (
        <TalkKeeping classId={classId} folderId={folderId} view={t} groups={props.groups} shut={props.shut} />
      )}
      {t.earlier > 0 && (
        <Button onClick={() => setBefore(t.messages[0]?.id)}>
          {t.earlier === 1 ? "1 earlier message" : `${t.earlier} earlier messages`}
        </Button>
      )}
      {t.messages.length === 0 && <Typography className="soft">Nobody has written yet.</Typography>}
      <ol className="talk-lines">
        {inThreads(t.messages).map(({ message, answers, answersEarlier }) => (
          <li key={message.id}>
            <TalkLine
              classId={classId}
              folderId={folderId}
              message={message}
              staff={staff && !props.shut}
              note={answersEarlier ? "answers an earlier message" : undefined}
              onAnswer={t.cantWrite ? undefined : () => change({ ...draft, answers: message.id })}
            />
            {answers.length > 0 && (
              <ol>
                {answers.map((a) => (
                  <li key={a.id}>
                    <TalkLine
                      classId={classId}
                      folderId={folderId}
                      message={a}
                      staff={staff && !props.shut}
                    />
                  </li>
                ))}
              </ol>
            )}
          </li>
        ))}
      </ol>
      {before !== undefined && <Button onClick={() => setBefore(undefined)}>To the newest</Button>}
      {t.cantWrite ? (
        <p className="soft">
          {cantWords[t.cantWrite]}
          {draft.text.trim() !== "" &&
            ` What you had typed is kept here: “${draft.text.trim().slice(0, 200)}”`}
        </p>
      ) : (
        <form
          onSubmit={(e) => {
            e.preventDefault();
            send();
          }}
        >
          {answered && (
            <p className="soft">
              You answer {answered.name}.{" "}
              <Button color="inherit" onClick={() => change({ ...draft, answers: null })}>
                Not as an answer
              </Button>
            </p>
          )}
          <TextField
            fullWidth
            multiline
            maxRows={8}
            label={answered ? "Your answer" : "Write a message"}
            value={draft.text}
            error={refused}
            onKeyDown={onKeys}
            onChange={(e) => change({ ...draft, text: e.target.value })}
          />
          <Button
            type="submit"
            variant="contained"
            disabled={draft.text.trim() === "" || write.isPending}
            aria-keyshortcuts="Control+Enter"
          >
            Send
          </Button>
        </form>
      )}
      <Problem error={write.error ?? talk.error} />
    </section>
  );
}
